import { createHash } from 'node:crypto';
import type { OutputPlan } from '@mailbag/contract';
import type { Column, SourceRecord } from '@mailbag/core';
import { NumberedKeys, packetColumns, recordKeys } from '@mailbag/core';
import type { FrozenMailing } from './frozen-mailing.js';

/** The columns that name pictures of the records. */
export const pictureColumns = ({ pictures = [] }: Pick<OutputPlan, 'pictures'>): string[] =>
  pictures.flatMap(({ column }) => (column === undefined ? [] : [column]));

/** Bytes of a digest that are kept: enough that no two records of a million meet by chance. */
const LENGTH = 16;

/** A digest that is known again, and says nothing about what it was made of to whoever does not have the salt. */
const digest = (salt: string, kind: string, ...parts: readonly string[]): string => {
  let text = `${salt}${kind.length}:${kind}`;
  for (const part of parts) text += `${part.length}:${part}`;
  // In one call: this is done for every record of a batch.
  return createHash('sha256')
    .update(text)
    .digest('hex')
    .slice(0, LENGTH * 2);
};

/** Columns whose values stand in the copies of a mailing, or say which of them there are; in order. */
export const columnsInCopies = ({ templates, plan }: Pick<FrozenMailing, 'templates' | 'plan'>): string[] =>
  [...new Set([...packetColumns(templates), ...pictureColumns(plan.output)])].sort();

/** Tells records of all batches by their key, however often a key stands there. Records must come in their order. */
export function keyDigests(
  salt: string,
  columns: readonly Pick<Column, 'name'>[],
  keyColumn: string | null,
): (record: SourceRecord) => string {
  const keyOf = recordKeys(columns, keyColumn);
  const numbers = new NumberedKeys();
  return (record) => digest(salt, 'key', numbers.of(keyOf(record)));
}

/** Tells whether the values of a record that stand in copies are others than before. @param used names of the columns */
export function valueDigests(
  salt: string,
  columns: readonly Pick<Column, 'name'>[],
  used: readonly string[],
): (record: SourceRecord) => string {
  const places = used.map((name) => columns.findIndex((column) => column.name === name));
  return ({ cells }) => digest(salt, 'values', ...places.map((place) => cells[place]?.text ?? ''));
}
