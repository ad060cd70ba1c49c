import type { TextPiece } from './page-marks.js';

/** A place to write on or to tick that is printed with characters, in the space of a reading, points. */
export interface WritingPlace {
  sign: 'rule' | 'leader' | 'box' | 'round' | 'comb';
  left: number;
  right: number;
  /** Of its baseline. */
  base: number;
  size: number;
  /** Of a comb. */
  cells: number | null;
}

/** Characters that stand for places (common practice, no source): `|__|__|__|`, `____`, `. . . .`, boxes, circles, `[ ]` and `( )`. */
const SIGNS: readonly [WritingPlace['sign'], string][] = [
  ['comb', String.raw`\|?(?:_{1,4}\|){2,}_{1,4}\|?`],
  ['rule', '_+'],
  ['leader', String.raw`(?:[.·]\s?){5,}|(?:…\s?){2,}|[.·]{4,}`],
  ['box', String.raw`[□☐▢❏❐❑❒◻]|\[[\s_]{1,4}\]|\([\s_]{1,4}\)`],
  ['round', '[◯○❍]'],
];
/** So many spaces part what stands beside them. */
const WIDE_GAP = String.raw`[ \u00a0]{3,}`;
const ANY = new RegExp(`${SIGNS.map(([, signs]) => `(${signs})`).join('|')}|${WIDE_GAP}`, 'gu');
/** A piece that is nothing but a bit of a leader, or the two halves of a bracket. */
const BIT = /^[\s.·…]+$/;

/** What is shorter than this is an underscore or a full stop, points. */
const SHORTEST = { rule: 9, leader: 16 };

type Piece = Pick<TextPiece, 'text' | 'x' | 'y' | 'width' | 'size' | 'isBold' | 'ends'>;

/** Takes the places out of printed text. @returns what stays text, cut where places stood, and the places */
export function takePlaces<One extends Piece>(pieces: readonly One[]): { text: One[]; places: WritingPlace[] } {
  const text: One[] = [];
  const found: { place: WritingPlace; piece: One }[] = [];
  for (const piece of pieces) {
    const { ends } = piece;
    if (!ends) {
      text.push(piece);
      continue;
    }
    const part = (from: number, to: number): One => {
      const left = from > 0 ? (ends[from - 1] ?? 0) : 0;
      return {
        ...piece,
        text: piece.text.slice(from, to),
        x: piece.x + left,
        width: (ends[to - 1] ?? piece.width) - left,
        ends: undefined,
      };
    };
    // Spaces at either end are no width of words.
    const keep = (from: number, to: number): void => {
      const words = piece.text.slice(from, to);
      const start = from + words.length - words.trimStart().length;
      const stop = to - (words.length - words.trimEnd().length);
      if (stop > start) text.push(part(start, stop));
    };
    const take = (sign: WritingPlace['sign'], from: number, to: number): void => {
      const own = part(from, to);
      const cells = sign === 'comb' ? own.text.split('|').filter((one) => one.includes('_')).length : null;
      found.push({
        place: { sign, left: own.x, right: own.x + own.width, base: own.y, size: own.size, cells },
        piece: own,
      });
    };
    if (BIT.test(piece.text)) {
      take('leader', 0, piece.text.length);
      continue;
    }
    let done = 0;
    for (const match of piece.text.matchAll(ANY)) {
      keep(done, match.index);
      done = match.index + match[0].length;
      const sign = match.slice(1).findIndex((group) => group !== undefined);
      if (sign >= 0) take(SIGNS[sign]![0], match.index, done);
    }
    keep(done, piece.text.length);
  }
  const joined: { place: WritingPlace; pieces: One[] }[] = [];
  for (const { place, piece } of found.sort((a, b) => b.place.base - a.place.base || a.place.left - b.place.left)) {
    const last = joined.at(-1);
    const isNext =
      last?.place.sign === place.sign &&
      (place.sign === 'rule' || place.sign === 'leader') &&
      Math.abs(last.place.base - place.base) < 1 &&
      place.left - last.place.right < place.size * (place.sign === 'rule' ? 0.2 : 0.8);
    if (last && isNext) {
      last.place.right = Math.max(last.place.right, place.right);
      last.pieces.push(piece);
    } else joined.push({ place: { ...place }, pieces: [piece] });
  }
  const places: WritingPlace[] = [];
  for (const { place, pieces: own } of joined) {
    const least = place.sign === 'rule' || place.sign === 'leader' ? SHORTEST[place.sign] : 0;
    if (place.right - place.left < least) text.push(...own);
    else places.push(place);
  }
  return { text, places };
}
