import { areaOf, near, overlap, shared, widthOf } from '../page/geometry.js';
import { meaningOf } from '../page/label-meaning.js';
import type { PageMarks } from '../page/page-marks.js';
import type { Box, Direction, PageReading } from '../page/page-reading.js';
import { mainDirection, readPage, uprightBox } from '../page/page-reading.js';
import { inReadingOrder } from '../page/reading-order.js';
import type { Place, PrintedLabel } from '../page/printed-label.js';
import { PageLabels } from '../page/printed-label.js';
import type { Blank, BlankKind, Found } from './blank.js';
import { findBoxes } from './boxes.js';
import { findCombs } from './combs.js';
import { Ground } from './ground.js';
import { findLines } from './lines.js';
import { findTicks } from './ticks.js';

/** Words that cost more than this belong to something else. */
const FARTHEST = { line: 34, box: 60, sign: 45 };
/** Points above a line to which the words that stand at it reach. */
const LINE_HEIGHT = 9;
/** A box that is narrower takes a part of a date, points. */
const DATE_WIDTH = 50;
/** A caption right below a line costs no more, and is no longer, characters; what is within so many points of the last rule is a foot. */
const [CAPTION, LONGEST_CAPTION, FOOT] = [9, 40, 24];
/** A picture that covers this share of a page with next to no text on it is a scan. */
const SCAN = 0.5;

/** What is on a page that waits to be written on, in the space of its reading. */
function foundOn(reading: PageReading): Found[] {
  const ground = new Ground(reading);
  const ticks = findTicks(ground);
  const combs = findCombs(ground, ticks);
  const isIn = (one: Found, others: readonly Found[]): boolean =>
    others.some((other) => shared(one.box, other.box) > areaOf(one.box) * 0.5);
  const signs = [...combs, ...ticks.filter((tick) => !isIn(tick, combs))];
  const boxes = findBoxes(ground, signs);
  const charts = ground.charts();
  return [...signs, ...boxes, ...findLines(ground, [...signs, ...boxes])].filter(
    ({ box }) => !charts.some((chart) => shared(chart, box) > areaOf(box) * 0.5),
  );
}

/** Whether a line with these words is one to write on: rules that part sections have none, or those of the text around them. */
function isNamed({ box, by, kind }: Found, printed: PrintedLabel | null, reading: PageReading, all: readonly Found[]): boolean {
  if (by === 'box') return true;
  if (!printed || printed.cost > FARTHEST[by]) return by === 'sign';
  if (by === 'sign') return true;
  const reach = [
    ...reading.phrases.map(({ left, right }) => [left, right] as const),
    ...all.map((one) => [one.box[0], one.box[2]] as const),
  ];
  const [first, last] = [Math.min(...reach.map(([left]) => left)), Math.max(...reach.map(([, right]) => right))];
  const isWide = widthOf(box) > (last - first) * 0.85;
  if (!isWide || meaningOf(printed.text) === 'signature' || printed.relation === 'left') return true;
  // Several lines of one length below words are there to be written on; a single one may part what is above from what is below.
  if (printed.relation === 'above') return printed.isAsking === true || kind === 'multiline';
  // A caption right below it; what stands below the last rule of a page is its foot.
  const isFoot = reading.phrases.every(({ base }) => base > box[1] - FOOT);
  return printed.relation === 'below' && printed.cost < CAPTION && printed.text.length <= LONGEST_CAPTION && !isFoot;
}

/** A blank as words are looked for. How high one writes above a line is not printed, and words belong to the line that they stand at. */
function placeOf({ box, kind, by }: Found): Place {
  const isLine = by !== 'box' && kind === 'text';
  return { box: isLine ? [box[0], box[1], box[2], Math.min(box[3], box[1] + LINE_HEIGHT)] : box, isTick: kind === 'checkbox' };
}

/** The row, or else the column, that a tick stands in with others. */
function groupOf(tick: Place, ticks: readonly Place[], labels: PageLabels): string | null {
  const row = ticks.filter(({ box }) => overlap(box[1], box[3], tick.box[1], tick.box[3]) > 2);
  const column = ticks.filter(({ box }) => near(box[0], tick.box[0], 4)).sort((a, b) => b.box[1] - a.box[1]);
  const part = labels.parted(row).find((places) => places.includes(tick))!;
  const ofRow = part.length > 1 ? labels.ofGroup(part)?.text : undefined;
  if (ofRow) return ofRow;
  // Ticks that stand below each other at the pitch of lines.
  const at = column.indexOf(tick);
  let [from, to] = [at, at];
  while (from > 0 && column[from - 1]!.box[1] - column[from]!.box[1] < 32) from--;
  while (to + 1 < column.length && column[to]!.box[1] - column[to + 1]!.box[1] < 32) to++;
  return to > from ? (labels.ofGroup(column.slice(from, to + 1))?.text ?? null) : null;
}

/** The box in the page's own space of one in a reading's. */
const ownBox = (box: Box, direction: Direction): Box => uprightBox(box, ((360 - direction) % 360) as Direction);
const rounded = (box: Box): Blank['rect'] => box.map((one) => Math.round(one * 100) / 100) as Blank['rect'];

/** Whether a page is only a picture, as scanners make it. @param area of the page, square points */
export function isScan({ pieces, pictures }: PageMarks, area: number): boolean {
  const letters = pieces.reduce((sum, { text }) => sum + text.length, 0);
  return letters < 20 && pictures.some((box) => areaOf(box) > area * SCAN);
}

/**
 * The blanks of a page: lines, boxes, combs, ticks, cells of tables, and what is printed with characters in place of them.
 * What only looks like one (rules that part text, frames, tables that are filled, charts) is left out as far as it can be told.
 * @param page 1-based
 */
export function findBlanks(marks: PageMarks, page: number): Blank[] {
  const direction = mainDirection(marks);
  const reading = readPage(marks, direction);
  const found = foundOn(reading);
  const places = new Map(found.map((one) => [one, placeOf(one)]));
  const labels = new PageLabels(reading, [...places.values()]);
  const printed = new Map(found.map((one) => [one, labels.of(places.get(one)!)]));
  const named = new Set(found.filter((one) => one.continues !== undefined || isNamed(one, printed.get(one)!, reading, found)));
  // A line without words that goes on with the one before it: “(   ) ________”.
  const goesOn = ({ box, by }: Found): boolean =>
    by === 'line' && [...named].some((other) => near(other.box[1], box[1]) && box[0] - other.box[2] > 0 && box[0] - other.box[2] < 20);
  const kept = found.filter((one) => named.has(one) || goesOn(one));
  const ticks = kept.filter(({ kind }) => kind === 'checkbox').map((one) => places.get(one)!);
  /** Whose words a blank without any has: of the line above, or of the same kind right before it. */
  const source = (one: Found): Found => {
    if (one.continues) return one.continues;
    if (printed.get(one) || one.kind === 'checkbox') return one;
    return (
      kept.find(
        (other) =>
          other.kind === one.kind &&
          other.by === one.by &&
          near(other.box[1], one.box[1]) &&
          one.box[0] - other.box[2] > 0 &&
          one.box[0] - other.box[2] < 24,
      ) ?? one
    );
  };
  const blanks = kept.map((one): Blank => {
    const words = printed.get(source(one));
    const label = words && words.cost <= 2 * FARTHEST[one.by] ? words.text : null;
    const meaning = label && one.kind !== 'checkbox' ? meaningOf(label) : null;
    const kind: BlankKind =
      meaning === 'signature' && one.kind !== 'comb'
        ? 'signature'
        : meaning === 'date' && one.kind === 'text' && widthOf(one.box) >= DATE_WIDTH
          ? 'date'
          : one.kind;
    return {
      page,
      rect: rounded(ownBox(one.box, direction)),
      kind,
      cells: one.cells,
      label,
      group: one.kind === 'checkbox' ? groupOf(places.get(one)!, ticks, labels) : null,
    };
  });
  const order = new Map(blanks.map((blank) => [blank, uprightBox(blank.rect, direction)]));
  return blanks.sort((a, b) => inReadingOrder(order.get(a)!, order.get(b)!));
}
