import type { Cell } from '@mailbag/core';
import { inReadingOrder, textFinder } from '@mailbag/core';
import { recordStore } from '../stores/record.store.js';
import type { Tasks } from '../work/tasks.js';
import { threadSql } from './worker-database.js';

type View = Tasks['viewRecords']['input'];

/** Records that are looked through at a time. */
const BLOCK = 2000;

/** Places that the conditions leave, as they come; null: all. */
async function placesOf({ sourceId, column, text, only }: View): Promise<number[] | null> {
  const wanted = text.trim();
  if (only === null && wanted === '') return null;
  const isIn = wanted === '' ? null : textFinder(wanted);
  const corrected =
    only === 'corrected' ? new Set((await recordStore.corrected(threadSql(), sourceId)).map(({ ordinal }) => ordinal)) : null;
  const isAsked = (ordinal: number): boolean => corrected === null || corrected.has(ordinal);
  const fits = (cell: string): boolean =>
    (isIn === null || isIn(cell)) && (only === 'empty' ? cell === '' : only === 'filled' ? cell !== '' : true);
  if (column !== null) {
    const cells = await recordStore.columnOf(threadSql(), sourceId, column, false);
    return cells.filter(({ ordinal, text: cell }) => isAsked(ordinal) && fits(cell ?? '')).map(({ ordinal }) => ordinal);
  }
  // Few lines hold the text at all, and only those are taken apart.
  const inLine = wanted === '' ? () => true : textFinder(JSON.stringify(wanted).slice(1, -1));
  const places: number[] = [];
  for (let from = 0; ; from += BLOCK) {
    const lines = await recordStore.stretch(threadSql(), sourceId, from, from + BLOCK);
    if (lines.length === 0) return places;
    for (const { ordinal, cells } of lines)
      if (isAsked(ordinal) && inLine(cells) && (JSON.parse(cells) as Cell[]).some((cell) => fits(cell.text))) places.push(ordinal);
  }
}

/** Records as they are to be seen: numbers and days by their value, texts as a dictionary has them, numbers within them by their value, what is empty last. */
export async function viewRecords(view: View): Promise<number[]> {
  const { order, sourceId } = view;
  const places = await placesOf(view);
  if (order === null) return places ?? (await recordStore.columnOf(threadSql(), sourceId, 0, false)).map(({ ordinal }) => ordinal);
  const isLeft = places && new Set(places);
  const column = await recordStore.columnOf(threadSql(), sourceId, order.column, order.hasValues);
  const left = isLeft ? column.filter(({ ordinal }) => isLeft.has(ordinal)) : column;
  const isEmpty = ({ text }: { text: string | null }): boolean => text === null || text === '';
  const numbers = left.filter(({ value }) => typeof value === 'number');
  numbers.sort((one, other) => (one.value as number) - (other.value as number));
  // A day is kept as ISO 8601, which is in its order as text. Numbers come before texts, as spreadsheet programs have them (common practice, no source).
  const texts = inReadingOrder(
    left.filter((one) => typeof one.value !== 'number' && !isEmpty(one)),
    ({ text, value }) => (typeof value === 'string' ? value : text!),
  );
  const up = [...numbers, ...texts];
  return [...(order.isDown ? up.reverse() : up), ...left.filter((one) => typeof one.value !== 'number' && isEmpty(one))].map(
    ({ ordinal }) => ordinal,
  );
}
