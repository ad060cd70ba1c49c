import { meaningOf } from '../page/label-meaning.js';
import { nameStem, saysNoMore } from '../page/label-words.js';
import type { Answer, AnswerPart } from './answer.js';
import { datePart, isCents, piecesOf } from './pieces.js';
import type { PlacedField, PrintedForm } from './printed-form.js';

/** How far pieces of one answer stand apart, points; further where only a stroke or the like is printed between them. */
const [CLOSE, WITH_SIGN] = [16, 40];
const SIGN = /^[\s/.\-–—_()|,]*$/;

/** Single-line boxes by the rows in which they stand, each from where one reads. */
function rowsOf(places: readonly PlacedField[]): PlacedField[][] {
  const rows: PlacedField[][] = [];
  for (const place of [...places].sort((a, b) => a.page - b.page || b.box[1] - a.box[1])) {
    const row = rows.at(-1);
    const first = row?.[0];
    if (row && first && first.page === place.page && Math.abs(first.box[1] - place.box[1]) < 4) row.push(place);
    else rows.push([place]);
  }
  for (const row of rows) row.sort((a, b) => a.box[0] - b.box[0]);
  return rows;
}

/** Whether a box may go on with what the one before it began. */
function mayFollow(before: PlacedField, place: PlacedField, chain: readonly PlacedField[], printed: PrintedForm): boolean {
  const gap = place.box[0] - before.box[2];
  const sign = printed.between(before, place);
  if (gap < -3 || gap > (sign !== null && SIGN.test(sign) ? WITH_SIGN : CLOSE)) return false;
  const { label, labelFrom } = place.field;
  const first = chain[0]!.field;
  if (datePart(place.field) && (datePart(before.field) || meaningOf(first.label ?? '') === 'date')) return true;
  if (isCents(place.field)) return true;
  // Words of its own make it an answer of its own.
  if (sign !== null && !SIGN.test(sign)) return false;
  const stem = (name: string): string => name.replace(/\[\d+\]/g, '').replace(/[_\-. ]?(?:\d{1,2}|[a-e])$/i, '');
  const isNumbered = stem(first.name) === stem(place.field.name) && first.name !== place.field.name;
  if (label === null || label === first.label) return true;
  if (labelFrom === 'name') return isNumbered || place.field.maxLength !== null;
  return (
    labelFrom === 'print' && first.label !== null && (saysNoMore(label, first.label) || (isNumbered && place.field.maxLength !== null))
  );
}

/** Answers that are split over the boxes of one row. */
export function rowAnswers(places: readonly PlacedField[], printed: PrintedForm, isMonthFirst: boolean): Answer[] {
  const single = places.filter(({ field }) => field.kind === 'text' && !field.flags.includes('multiline') && field.widgets.length === 1);
  const found: Answer[] = [];
  for (const row of rowsOf(single)) {
    for (let at = 0; at < row.length - 1;) {
      let end = at;
      while (end + 1 < row.length && mayFollow(row[end]!, row[end + 1]!, row.slice(at, end + 1), printed)) end++;
      let taken = 1;
      // The longest chain that makes an answer.
      for (let last = end; last > at; last--) {
        const chain = row.slice(at, last + 1);
        const signs = chain.slice(1).map((place, index) => printed.between(chain[index]!, place));
        const { field } = chain[0]!;
        const pieces = piecesOf(chain, signs, `${field.label ?? ''} ${field.tooltip ?? ''}`, isMonthFirst);
        if (!pieces) continue;
        found.push({
          label: pieces.reason === 'date' ? wholeLabel(chain) : field.label,
          section: field.section ?? null,
          parts: chain.map((place, index): AnswerPart => ({ field: place.field.name, piece: pieces.pieces[index]!, option: null })),
          reason: pieces.reason,
        });
        taken = chain.length;
        break;
      }
      at += taken;
    }
  }
  return found;
}

/** What the first box of a chain is called, or what all are where it is only called a part. */
function wholeLabel(chain: readonly PlacedField[]): string | null {
  const { label } = chain[0]!.field;
  if (label === null || !datePart(chain[0]!.field)) return label;
  const words = label.split(/[\s,:(]+/);
  return words.length > 1 ? words.slice(0, -1).join(' ') : label;
}

/** Whether two boxes may be lines of one text by their names: those that speak say the same, but for a number. */
function isOneText(first: PlacedField, other: PlacedField): boolean {
  const [one, two] = [nameStem(first.field.name), nameStem(other.field.name)];
  return one === null || two === null || one === two || one.startsWith(two) || two.startsWith(one);
}

/** Texts that go on in the lines below: boxes of one width that follow each other, of which only the first has words. */
export function lineAnswers(places: readonly PlacedField[], taken: ReadonlySet<string>, printed: PrintedForm): Answer[] {
  const single = places.filter(
    ({ field }) => field.kind === 'text' && !taken.has(field.name) && field.widgets.length === 1 && !field.flags.includes('comb'),
  );
  const sorted = [...single].sort((a, b) => a.page - b.page || b.box[3] - a.box[3]);
  const next = (upper: PlacedField): PlacedField | undefined =>
    sorted.find(
      (place) =>
        place !== upper &&
        place.page === upper.page &&
        upper.box[0] - place.box[0] > -4 &&
        upper.box[0] - place.box[0] < (upper.box[2] - upper.box[0]) * 0.6 &&
        Math.abs(place.box[2] - upper.box[2]) < 4 &&
        upper.box[1] - place.box[3] > -3 &&
        upper.box[1] - place.box[3] < (upper.box[3] - upper.box[1]) * 1.2,
    );
  const used = new Set<PlacedField>();
  const found: Answer[] = [];
  for (const first of sorted) {
    if (used.has(first) || first.field.label === null || printed.isContinued(first) || first.box[2] - first.box[0] < 60) continue;
    // Beside other boxes of the same rows it is a column of a table.
    const chain = [first];
    for (let below = next(first); below && printed.isContinued(below) && isOneText(first, below); below = next(below)) chain.push(below);
    const isColumn = sorted.some(
      (other) =>
        !chain.includes(other) &&
        other.page === first.page &&
        chain.length > 1 &&
        Math.abs(other.box[1] - chain[1]!.box[1]) < 3 &&
        Math.abs(other.box[3] - chain[1]!.box[3]) < 3 &&
        printed.isContinued(other),
    );
    if (chain.length < 2 || isColumn) continue;
    for (const one of chain) used.add(one);
    found.push({
      label: first.field.label,
      section: first.field.section ?? null,
      parts: chain.map(({ field }, index) => ({ field: field.name, piece: { what: 'line', number: index + 1 }, option: null })),
      reason: 'lines',
    });
  }
  return found;
}
