import type { Cell } from '@mailbag/core';
import { textFinder } from '@mailbag/core';
import { recordStore } from '../stores/record.store.js';
import type { Tasks } from '../work/tasks.js';
import { columnAt, isEmptyAt, orderOf, readingOf } from './record-columns.js';
import { linesHolding } from './record-lines.js';
import { threadSql } from './worker-database.js';

type View = Tasks['viewRecords']['input'];
type Reading = { readingId: number; stamp: string };

/** Places of the records that the conditions leave, in their order; null: all. */
async function placesLeft(reading: Reading, { sourceId, column, text, only }: View): Promise<number[] | null> {
  const wanted = text.trim();
  if (only === null && wanted === '') return null;
  const isIn = wanted === '' ? null : textFinder(wanted);
  const corrected =
    only === 'corrected' ? new Set((await recordStore.corrected(threadSql(), sourceId)).map(({ ordinal }) => ordinal)) : null;
  const isAsked = (place: number): boolean => corrected === null || corrected.has(place);
  const fits = (cell: string): boolean =>
    (isIn === null || isIn(cell)) && (only === 'empty' ? cell === '' : only === 'filled' ? cell !== '' : true);
  if (column !== null) {
    const { texts } = await columnAt(reading, column, false);
    return [...texts.keys()].filter((place) => isAsked(place) && fits(texts[place] ?? ''));
  }
  const places: number[] = [];
  // Few lines hold the text at all, and only those are taken apart.
  for await (const [place, line] of linesHolding(reading, wanted))
    if (isAsked(place) && (JSON.parse(line) as Cell[]).some((cell) => fits(cell.text))) places.push(place);
  return places;
}

/** Records as they are to be seen: in the order of a column, with what is empty last, or as they came. */
export async function viewRecords(view: View): Promise<number[]> {
  const { order, sourceId } = view;
  const reading = await readingOf(sourceId);
  if (reading === null) return [];
  const left = await placesLeft(reading, view);
  if (order === null) return left ?? [...(await columnAt(reading, 0, false)).texts.keys()];
  const column = await columnAt(reading, order.column, order.hasValues);
  const up = [...orderOf(column)];
  const all = [...(order.isDown ? up.reverse() : up), ...[...column.texts.keys()].filter((place) => isEmptyAt(column, place))];
  if (left === null) return all;
  const wanted = new Set(left);
  return all.filter((place) => wanted.has(place));
}
