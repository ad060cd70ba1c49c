import type { BatchContext, RecordFiller, SourceRecord } from '@mailbag/core';
import { copiesFor, copyCode, fillContext, isMailbagError, outputPattern, recordOf, rowReader } from '@mailbag/core';
import { createHash, randomBytes } from 'node:crypto';
import { fileKey } from '../files/file-key.js';
import { put } from '../files/files.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { copyPlace } from '../frozen/personal-link.js';
import type { Letter } from '../frozen/message-of.js';
import { dataOf, letterPattern, passwordPattern, patternNames } from '../frozen/message-of.js';
import { compileMailing } from './compile-mailing.js';
import { recordPictures } from './record-pictures.js';
import { wordsOf } from './foreign-words.js';
import { protectionsOf } from './protections.js';
import { recordBlocks } from './source-records.js';
import type { Tasks } from '../work/tasks.js';

/** Records that are read for the faces of all copies; beyond them hardly a character is new. */
const MOST_READ = 5000;

let cached: { key: string; fillers: RecordFiller[] } | null = null;

interface Sampled {
  record: SourceRecord;
  ordinal: number;
  /** One for the first copy of each template. */
  codes: string[];
}

/** A copy that is made to be looked at. */
interface Sample {
  name: string;
  template: string;
  /** Of the template in its packet, from 0. */
  position: number;
  bytes: Uint8Array;
}

/** Makes copies of some records as a batch would, in memory only. @param others records beside which they are made: the faces are those for all of them @param pictures see `recordPictures` */
async function sampler(
  mailing: FrozenMailing,
  batch: BatchContext,
  records: readonly Sampled[],
  others?: AsyncIterable<{ first: number; records: SourceRecord[] }>,
  pictures?: Readonly<Record<string, Uint8Array>>,
): Promise<(one: Sampled) => Promise<Sample[]>> {
  const characters = new Set<string>();
  const words = wordsOf(mailing, batch, characters);
  words.ofRules();
  for (const { record, ordinal } of records) words.ofRecord(record, ordinal);
  for await (const { first, records: block } of others ?? []) block.forEach((record, at) => words.ofRecord(record, first + at));
  const { finish, stamp = null, pictures: boxes = [] } = mailing.plan.output;
  const key = createHash('sha256')
    .update(JSON.stringify([finish, stamp, boxes, mailing.templates.map(({ hash, map, stamps }) => [hash, map, stamps]), [...characters]]))
    .digest('hex');
  if (cached?.key !== key) cached = { key, fillers: await compileMailing(mailing, characters) };
  const { fillers } = cached;
  const protections = protectionsOf(mailing, 'sample');
  const read = rowReader(mailing.columns);
  const path = outputPattern(mailing.plan.output.folder, mailing.plan.output.file, patternNames(mailing.columns));
  const picturesOf = await recordPictures(mailing, pictures);
  return async ({ record, ordinal, codes }) => {
    const row = read(record);
    const made: Sample[] = [];
    for (const [position, template] of mailing.templates.entries())
      for (const [at, own] of copiesFor(template, row, fillContext(batch, ordinal, codes[position]!)).entries()) {
        const code = at === 0 ? codes[position]! : copyCode(new Uint8Array(randomBytes(10)));
        const protect = protections?.({ ...record, ordinal }, code, batch, template.name)?.protect ?? null;
        const images = await picturesOf(own, template);
        const told = { ...copyPlace(batch, mailing.links, ordinal, code), protect, ...(images && { images }) };
        const { bytes } = fillers[position]!.fill(own, told).copy;
        const place = { record: recordOf(own, mailing.columns), ordinal, code, batch, template: template.name };
        made.push({ name: path.path(dataOf(mailing.columns, place)).file, template: template.name, position, bytes });
      }
    return made;
  };
}

/** The place of a record in what patterns are rendered over, for its message and its password. */
const placeOf = (
  { templates }: FrozenMailing,
  batch: BatchContext,
  { record, ordinal, codes }: Sampled,
): Parameters<ReturnType<typeof letterPattern>['letter']>[0] => ({
  record,
  ordinal,
  code: codes[0] ?? '',
  batch,
  template: templates[0]?.name ?? '',
});

/** Makes the copies of one record and their message as a batch would, in memory only. */
export async function sampleCopies({
  mailing,
  batch,
  replaces,
  pictures,
  ...one
}: Tasks['sample']['input']): Promise<Tasks['sample']['output']> {
  const copiesOf = await sampler(mailing, batch, [one], undefined, pictures);
  const place = placeOf(mailing, batch, one);
  return {
    copies: (await copiesOf(one)).map(({ name, bytes }) => ({ name, bytes })),
    letter: letterPattern(mailing).letter({ ...place, replaces }),
    openPassword: passwordPattern(mailing.plan, mailing.columns)?.(place).open ?? '',
  };
}

/** Writes the message for one record as a batch would, without its copies. */
export function sampleLetter({ mailing, batch, record, code }: Tasks['letter']['input']): Letter {
  return letterPattern(mailing).letter(placeOf(mailing, batch, { record, ordinal: 0, codes: [code] }));
}

/** Makes the copies of what a visitor has answered so far. Nothing of it is kept. */
export async function visitorCopies({
  mailing,
  batch,
  pictures,
  ...one
}: Tasks['visitorCopies']['input']): Promise<Tasks['visitorCopies']['output']> {
  const copiesOf = await sampler(mailing, batch, [one], undefined, pictures);
  return { copies: (await copiesOf(one)).map(({ name, position, bytes }) => ({ name, form: position, bytes })) };
}

/** Makes the copies of some records into files of the spool. One that cannot be made says why, and the others are made. */
export async function trialCopies({ mailing, batch, records, name, pictures }: Tasks['trial']['input']): Promise<Tasks['trial']['output']> {
  const copiesOf = await sampler(mailing, batch, records, undefined, pictures);
  const passwords = passwordPattern(mailing.plan, mailing.columns);
  const made: Tasks['trial']['output'] = { copies: [], faults: [] };
  for (const one of records) {
    try {
      const openPassword = passwords?.(placeOf(mailing, batch, one)).open ?? '';
      for (const { name: file, template, bytes } of await copiesOf(one)) {
        const key = fileKey('spool', `${name}-${made.copies.length}.pdf`);
        await put(key, bytes);
        made.copies.push({ index: one.ordinal, template, file, key, size: bytes.length, openPassword });
      }
    } catch (error) {
      if (!isMailbagError(error)) throw error;
      made.faults.push({ index: one.ordinal, why: error.message });
    }
  }
  return made;
}

/** Makes the copies of some records once more than is needed: what is made for the first time takes longer than in a batch. */
export async function weighCopies({ mailing, batch, records, sourceId }: Tasks['weigh']['input']): Promise<Tasks['weigh']['output']> {
  const copiesOf = await sampler(mailing, batch, records, recordBlocks(sourceId, 0, MOST_READ));
  const make = async (): Promise<Uint8Array[]> => {
    const all: Uint8Array[] = [];
    try {
      for (const one of records) for (const { bytes } of await copiesOf(one)) all.push(bytes);
      return all;
    } catch (error) {
      // One that cannot be made is a stop, and is told there.
      if (!isMailbagError(error)) throw error;
      return [];
    }
  };
  await make();
  const from = performance.now();
  const made = await make();
  return { copies: made.length, bytes: made.reduce((sum, bytes) => sum + bytes.length, 0), milliseconds: performance.now() - from };
}
