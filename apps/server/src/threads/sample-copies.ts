import type { RecordFiller } from '@mailbag/core';
import { fillContext, isFor, outputPattern, rowReader } from '@mailbag/core';
import { createHash } from 'node:crypto';
import { dataOf, letterPattern, passwordPattern, patternNames } from '../frozen/message-of.js';
import { compileMailing } from './compile-mailing.js';
import { wordsOf } from './foreign-words.js';
import { protectionsOf } from './protections.js';
import type { Tasks } from '../work/tasks.js';

let kept: { key: string; fillers: RecordFiller[] } | null = null;

/** Makes the copies of one record and their message as a batch would, in memory only. */
export async function sampleCopies({
  mailing,
  record,
  ordinal,
  batch,
  codes,
}: Tasks['sample']['input']): Promise<Tasks['sample']['output']> {
  const characters = new Set<string>();
  const words = wordsOf(mailing, batch, characters);
  words.ofRules();
  words.ofRecord(record, ordinal);
  const { finish, stamp = null, pictures = [] } = mailing.plan.output;
  const key = createHash('sha256')
    .update(
      JSON.stringify([finish, stamp, pictures, mailing.templates.map(({ hash, map, stamps }) => [hash, map, stamps]), [...characters]]),
    )
    .digest('hex');
  if (kept?.key !== key) kept = { key, fillers: await compileMailing(mailing, characters) };
  const { fillers } = kept;
  const protections = protectionsOf(mailing, 'sample');
  const row = rowReader(mailing.columns)(record);
  const path = outputPattern(mailing.plan.output.folder, mailing.plan.output.file, patternNames(mailing.columns));
  const copies = mailing.templates.flatMap((template, position) => {
    if (isFor(template, row, fillContext(batch, ordinal, codes[position]!)) !== true) return [];
    const code = codes[position]!;
    const protect = protections?.({ ...record, ordinal }, code, batch, template.name)?.protect ?? null;
    const filled = fillers[position]!.fill(row, { ...fillContext(batch, ordinal, code), protect }).copy;
    return [
      {
        name: path.path(dataOf(mailing.columns, { record, ordinal, code, batch, template: template.name })).file,
        bytes: filled.bytes,
      },
    ];
  });
  const place = { record, ordinal, code: codes[0] ?? '', batch, template: mailing.templates[0]?.name ?? '' };
  return {
    copies,
    letter: letterPattern(mailing).letter(place),
    openPassword: passwordPattern(mailing.plan, mailing.columns)?.(place).open ?? '',
  };
}
