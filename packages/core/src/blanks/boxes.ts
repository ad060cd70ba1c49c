import { areaOf, heightOf, overlap, shared, widthOf } from '../page/geometry.js';
import type { Box, Phrase } from '../page/page-reading.js';
import type { Found } from './blank.js';
import { isUnit } from '../page/label-words.js';
import type { Ground } from './ground.js';
import { phraseBox } from './ground.js';

/** The smallest box that words go into, points; and one that is so high, in lines of 12, takes several. */
const [NARROWEST, LOWEST, SEVERAL_LINES] = [16, 8.5, 32];
/** Captions inside a box are no larger than this, points. */
const CAPTION = 10.5;

const kindOf = (box: Box): Found['kind'] => (heightOf(box) >= SEVERAL_LINES && widthOf(box) > 60 ? 'multiline' : 'text');

/** What is left of a box beside the words in it; null: they fill it. */
function roomBeside(box: Box, words: readonly Phrase[]): Box | null {
  const boxes = words.map(phraseBox);
  const [lowest, highest] = [Math.min(...boxes.map((one) => one[1])), Math.max(...boxes.map((one) => one[3]))];
  const isSmall = words.every(({ size }) => size <= CAPTION);
  const below = lowest - box[1];
  const over = box[3] - highest;
  if (isSmall && below >= LOWEST && below > heightOf(box) * 0.38 && over < 6) return [box[0], box[1], box[2], lowest];
  if (isSmall && over >= LOWEST && over > heightOf(box) * 0.45 && below < 4) return [box[0], highest, box[2], box[3]];
  const isOneLine = highest - lowest < 1.6 * Math.max(...words.map(({ size }) => size));
  const [start, end] = [Math.min(...words.map(({ left }) => left)), Math.max(...words.map(({ right }) => right))];
  const text = words.map((phrase) => phrase.text).join(' ');
  const right = box[2] - end;
  // “Name:” before the room for it; without its colon it may be a cell of a table.
  if (isOneLine && start - box[0] < 10 && right > Math.max(36, widthOf(box) * 0.4) && /[:：]$/.test(text))
    return [end + 3, box[1], box[2], box[3]];
  if (isOneLine && isSmall && over < 3.5 && start - box[0] < 10 && right > widthOf(box) * 0.4 && heightOf(box) >= 14 && below > 4)
    return [box[0], box[1], box[2], Math.max(lowest, box[1] + LOWEST)];
  // A currency or a unit at either end.
  if (isOneLine && isUnit(text) && widthOf(box) - (end - start) > 30)
    return start - box[0] < box[2] - end ? [end + 2, box[1], box[2], box[3]] : [box[0], box[1], start - 2, box[3]];
  return null;
}

/** Tables: cells that touch, by the column and the row that they stand in. */
class Tables {
  private readonly columns = new Map<string, Box[]>();
  private readonly rows = new Map<string, Box[]>();
  constructor(
    private readonly ground: Ground,
    cells: readonly Box[],
  ) {
    for (const cell of cells) {
      for (const [map, key] of [
        [this.columns, this.columnOf(cell)],
        [this.rows, this.rowOf(cell)],
      ] as const) {
        const there = map.get(key);
        if (there) there.push(cell);
        else map.set(key, [cell]);
      }
    }
  }
  private columnOf = (box: Box): string => `${Math.round(box[0] / 3)} ${Math.round(box[2] / 3)}`;
  private rowOf = (box: Box): string => `${Math.round(box[1] / 3)} ${Math.round(box[3] / 3)}`;
  private isFull = (box: Box): boolean => this.ground.phrasesIn(box).length > 0;

  /** Whether an empty cell belongs to a table that is already filled: most cells of its row and of its column have words. */
  isLeftOver(cell: Box): boolean {
    const column = (this.columns.get(this.columnOf(cell)) ?? []).filter((box) => box !== cell);
    const row = (this.rows.get(this.rowOf(cell)) ?? []).filter((box) => box !== cell);
    if (column.length < 2 || row.length < 2) {
      // The corner above the names of rows and before those of columns.
      return column.length >= 2 && row.length >= 1 && column.every(this.isFull) && row.every(this.isFull);
    }
    const [inColumn, inRow] = [column.filter(this.isFull).length / column.length, row.filter(this.isFull).length / row.length];
    const isCorner = [...column, cell].every((box) => box[3] <= cell[3] + 1) && [...row, cell].every((box) => box[0] >= cell[0] - 1);
    // A cell with a caption is no empty corner.
    return isCorner ? inRow > 0.5 && !this.isFull(cell) : inColumn > 0.5 && inRow > 0.5;
  }
}

/** Boxes and cells of tables that wait for words. @param others what was found of other kinds; a box around one of them is a frame */
export function findBoxes(ground: Ground, others: readonly Found[]): Found[] {
  const light = ground.reading.shapes
    .filter((shape) => {
      const { box, isRound, fill, isStroked } = shape;
      if (isRound || widthOf(box) < NARROWEST || heightOf(box) < LOWEST) return false;
      if (isStroked) return fill === null || fill > 0.8;
      return fill !== null && (fill > 0.98 ? ground.isOnDarker(shape) : fill > 0.82 && heightOf(box) < 120);
    })
    .map(({ box }) => box);
  const isTaken = (box: Box): boolean => others.some((other) => shared(other.box, box) > Math.min(areaOf(other.box), areaOf(box)) * 0.6);
  const cells = ground.cells.filter((box) => widthOf(box) >= NARROWEST && heightOf(box) >= LOWEST);
  const candidates = [...cells];
  for (const box of light)
    if (!candidates.some((other) => shared(other, box) > Math.max(areaOf(other), areaOf(box)) * 0.7)) candidates.push(box);
  const tables = new Tables(ground, cells);
  const found: Found[] = [];
  // The smallest first, so that what surrounds others is told by them.
  for (const box of candidates.sort((a, b) => areaOf(a) - areaOf(b))) {
    if (isTaken(box) || ground.isShaded(box)) continue;
    if (found.some((other) => shared(other.box, box) > areaOf(other.box) * 0.6)) continue;
    if (candidates.some((other) => other !== box && areaOf(other) < areaOf(box) * 0.9 && shared(other, box) > areaOf(other) * 0.9))
      continue;
    const words = ground.phrasesIn(box);
    if (words.length === 0) {
      if (!tables.isLeftOver(box) && (heightOf(box) < 420 || widthOf(box) < 300))
        found.push({ box, kind: kindOf(box), cells: null, by: 'box' });
      continue;
    }
    const room = words.length <= 4 ? roomBeside(box, words) : null;
    if (!room || (words.length > 0 && tables.isLeftOver(box) && !/[:：]$/.test(words[0]!.text))) continue;
    if (
      ground.reading.places.some(({ base, left, right }) => base > room[1] && base < room[3] && overlap(left, right, room[0], room[2]) > 0)
    )
      continue;
    found.push({ box: room, kind: kindOf(room), cells: null, by: 'box' });
  }
  return found;
}
