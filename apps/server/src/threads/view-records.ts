import type { Cell } from '@mailbag/core';
import { textFinder } from '@mailbag/core';
import { recordStore } from '../stores/record.store.js';
import type { Tasks } from '../work/tasks.js';
import { columnAt, isEmptyAt, orderOf, readingOf } from './record-columns.js';
import { threadSql } from './worker-database.js';

type View = Tasks['viewRecords']['input'];
type Reading = { readingId: number; stamp: string };

/** Records that are looked through at a time. */
const BLOCK = 2000;

/** Whether a record is left, by its place. */
type Left = (place: number) => boolean;

/** Which records the conditions leave; null: all. */
async function leftOf(reading: Reading, { sourceId, column, text, only }: View): Promise<Left | null> {
  const wanted = text.trim();
  if (only === null && wanted === '') return null;
  const isIn = wanted === '' ? null : textFinder(wanted);
  const corrected =
    only === 'corrected' ? new Set((await recordStore.corrected(threadSql(), sourceId)).map(({ ordinal }) => ordinal)) : null;
  const isAsked: Left = (place) => corrected === null || corrected.has(place);
  const fits = (cell: string): boolean =>
    (isIn === null || isIn(cell)) && (only === 'empty' ? cell === '' : only === 'filled' ? cell !== '' : true);
  if (column !== null) {
    const { texts } = await columnAt(reading, column, false);
    return (place) => isAsked(place) && fits(texts[place] ?? '');
  }
  // Few lines hold the text at all, and only those are taken apart; whole blocks of them are passed over at once.
  const inLine = wanted === '' ? () => true : textFinder(JSON.stringify(wanted).slice(1, -1));
  const places = new Set<number>();
  for (let from = 0; ; from += BLOCK) {
    const block = await recordStore.linesOf(threadSql(), reading.readingId, from, from + BLOCK);
    if (block === '') return (place) => places.has(place);
    if (!inLine(block)) continue;
    for (const [at, line] of block.split('\n').entries())
      if (isAsked(from + at) && inLine(line) && (JSON.parse(line) as Cell[]).some((cell) => fits(cell.text))) places.add(from + at);
  }
}

/** Records as they are to be seen: in the order of a column, with what is empty last, or as they came. */
export async function viewRecords(view: View): Promise<number[]> {
  const { order, sourceId } = view;
  const reading = await readingOf(sourceId);
  if (reading === null) return [];
  const isLeft = await leftOf(reading, view);
  const column = await columnAt(reading, order?.column ?? 0, order?.hasValues ?? false);
  const places = [...column.texts.keys()];
  if (order === null) return isLeft ? places.filter(isLeft) : places;
  const up = [...orderOf(column)];
  const all = [...(order.isDown ? up.reverse() : up), ...places.filter((place) => isEmptyAt(column, place))];
  return isLeft ? all.filter(isLeft) : all;
}
