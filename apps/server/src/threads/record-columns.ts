import type { Cell } from '@mailbag/core';
import { inReadingOrder } from '@mailbag/core';
import { recordStore } from '../stores/record.store.js';
import { threadSql } from './worker-database.js';

/** A column of all records of a source, by their places. */
interface RecordColumn {
  texts: readonly (string | null)[];
  /** Numbers, and days as ISO 8601; null: they were not asked for. */
  values: readonly (string | number | null)[] | null;
  /** Places from the least to the greatest, without those that are empty; null: nobody has asked yet. */
  order: Int32Array | null;
}

/** Columns that are kept for the next question of whoever looks at them; one of 100,000 records takes about 10 MB. */
const MOST = 4;
const cache = new Map<string, RecordColumn>();

/** @returns null: the source has no records yet */
export async function readingOf(sourceId: number): Promise<{ readingId: number; stamp: string } | null> {
  const now = await recordStore.stampOf(threadSql(), sourceId);
  if (!now || now.readingId === null) return null;
  return { readingId: now.readingId, stamp: `${now.readingId} ${now.corrected} ${now.last}` };
}

async function read(readingId: number, index: number, withValues: boolean): Promise<Pick<RecordColumn, 'texts' | 'values'>> {
  const column = await recordStore.columnOf(threadSql(), readingId, index, withValues ? 'cell' : 'text');
  if (!withValues) return { texts: column, values: null };
  const cells = column.map((cell) => (cell === null ? null : (JSON.parse(cell) as Cell)));
  return {
    texts: cells.map((cell) => cell?.text ?? null),
    // A truth value has no order of its own: its text has.
    values: cells.map((cell) => (typeof cell?.value === 'number' || typeof cell?.value === 'string' ? cell.value : null)),
  };
}

/** A column as it is now. */
export async function columnAt(reading: { readingId: number; stamp: string }, index: number, withValues: boolean): Promise<RecordColumn> {
  const key = `${reading.stamp} ${index} ${withValues}`;
  const known = cache.get(key);
  if (known) return known;
  const column: RecordColumn = { ...(await read(reading.readingId, index, withValues)), order: null };
  cache.set(key, column);
  if (cache.size > MOST) cache.delete(cache.keys().next().value!);
  return column;
}

/** Whether a place of a column is empty, and so comes last, whichever way. */
export const isEmptyAt = ({ texts, values }: RecordColumn, place: number): boolean =>
  typeof values?.[place] !== 'number' && (texts[place] === null || texts[place] === '');

/** A day as it is kept (ISO 8601). */
const DAY = /^\d{4}-\d\d-\d\d/;

/** Numbers first, then days, each by their value, then texts as a dictionary has them, numbers within them by their value. */
export function orderOf(column: RecordColumn): Int32Array {
  if (column.order) return column.order;
  const { texts, values } = column;
  const numbers: number[] = [];
  const days: number[] = [];
  const others: number[] = [];
  for (const place of texts.keys()) {
    const value = values?.[place];
    if (typeof value === 'number') numbers.push(place);
    else if (typeof value === 'string' && DAY.test(value)) days.push(place);
    else if (!isEmptyAt(column, place)) others.push(place);
  }
  // Numbers come before texts, as spreadsheet programs have them (common practice, no source).
  numbers.sort((one, other) => (values![one] as number) - (values![other] as number));
  days.sort((one, other) => (values![one]! < values![other]! ? -1 : values![one]! > values![other]! ? 1 : one - other));
  column.order = Int32Array.from([...numbers, ...days, ...inReadingOrder(others, (place) => texts[place]!)]);
  return column.order;
}
