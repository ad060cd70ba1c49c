import type { BatchContext, RecordFiller, SourceRecord } from '@mailbag/core';
import { fillContext, isFor, isMailbagError, outputPattern, rowReader } from '@mailbag/core';
import { createHash } from 'node:crypto';
import { fileKey } from '../files/file-key.js';
import { put } from '../files/files.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { dataOf, letterPattern, passwordPattern, patternNames } from '../frozen/message-of.js';
import { compileMailing } from './compile-mailing.js';
import { wordsOf } from './foreign-words.js';
import { protectionsOf } from './protections.js';
import { recordBlocks } from './source-records.js';
import type { Tasks } from '../work/tasks.js';

/** Records that are read for the faces of all copies; beyond them hardly a character is new. */
const MOST_READ = 5000;

let kept: { key: string; fillers: RecordFiller[] } | null = null;

interface Sampled {
  record: SourceRecord;
  ordinal: number;
  /** One for each template. */
  codes: string[];
}

/** Makes copies of some records as a batch would, in memory only. @param others records beside which they are made: the faces are those for all of them */
async function sampler(
  mailing: FrozenMailing,
  batch: BatchContext,
  records: readonly Sampled[],
  others?: AsyncIterable<{ first: number; records: SourceRecord[] }>,
): Promise<(one: Sampled) => { name: string; template: string; bytes: Uint8Array }[]> {
  const characters = new Set<string>();
  const words = wordsOf(mailing, batch, characters);
  words.ofRules();
  for (const { record, ordinal } of records) words.ofRecord(record, ordinal);
  for await (const { first, records: block } of others ?? []) block.forEach((record, at) => words.ofRecord(record, first + at));
  const { finish, stamp = null, pictures = [] } = mailing.plan.output;
  const key = createHash('sha256')
    .update(
      JSON.stringify([finish, stamp, pictures, mailing.templates.map(({ hash, map, stamps }) => [hash, map, stamps]), [...characters]]),
    )
    .digest('hex');
  if (kept?.key !== key) kept = { key, fillers: await compileMailing(mailing, characters) };
  const { fillers } = kept;
  const protections = protectionsOf(mailing, 'sample');
  const read = rowReader(mailing.columns);
  const path = outputPattern(mailing.plan.output.folder, mailing.plan.output.file, patternNames(mailing.columns));
  return ({ record, ordinal, codes }) => {
    const row = read(record);
    return mailing.templates.flatMap((template, position) => {
      const code = codes[position]!;
      const context = fillContext(batch, ordinal, code);
      if (isFor(template, row, context) !== true) return [];
      const protect = protections?.({ ...record, ordinal }, code, batch, template.name)?.protect ?? null;
      const { bytes } = fillers[position]!.fill(row, { ...context, protect }).copy;
      const { file } = path.path(dataOf(mailing.columns, { record, ordinal, code, batch, template: template.name }));
      return [{ name: file, template: template.name, bytes }];
    });
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
export async function sampleCopies({ mailing, batch, ...one }: Tasks['sample']['input']): Promise<Tasks['sample']['output']> {
  const copiesOf = await sampler(mailing, batch, [one]);
  const place = placeOf(mailing, batch, one);
  return {
    copies: copiesOf(one).map(({ name, bytes }) => ({ name, bytes })),
    letter: letterPattern(mailing).letter(place),
    openPassword: passwordPattern(mailing.plan, mailing.columns)?.(place).open ?? '',
  };
}

/** Makes the copies of some records into files of the spool. One that cannot be made says why, and the others are made. */
export async function trialCopies({ mailing, batch, records, name }: Tasks['trial']['input']): Promise<Tasks['trial']['output']> {
  const copiesOf = await sampler(mailing, batch, records);
  const passwords = passwordPattern(mailing.plan, mailing.columns);
  const made: Tasks['trial']['output'] = { copies: [], faults: [] };
  for (const one of records) {
    try {
      const openPassword = passwords?.(placeOf(mailing, batch, one)).open ?? '';
      for (const { name: file, template, bytes } of copiesOf(one)) {
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
  const make = (): Uint8Array[] => {
    try {
      return records.flatMap((one) => copiesOf(one).map(({ bytes }) => bytes));
    } catch (error) {
      // One that cannot be made is a stop, and is told there.
      if (!isMailbagError(error)) throw error;
      return [];
    }
  };
  make();
  const from = performance.now();
  const made = make();
  return { copies: made.length, bytes: made.reduce((sum, bytes) => sum + bytes.length, 0), milliseconds: performance.now() - from };
}
