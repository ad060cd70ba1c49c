import type { Fit } from '../value.js';
import type { FaceChoice, TextRun } from './text-run.js';
import { runsWidth, shapeLine } from './text-run.js';

/** Where text may stand: a box in points with its origin at the lower left, already turned upright. */
export interface TextBox {
  width: number;
  height: number;
  /** Width of the border, points. */
  border: number;
  multiline: boolean;
  /** Number of cells; 0: no comb. */
  comb: number;
  /** Quadding: 0 left, 1 centred, 2 right (ISO 32000-2, 12.7.4.3). */
  quadding: 0 | 1 | 2;
  /** Points; 0: as large as fits. */
  size: number;
}

export interface PlacedLine {
  x: number;
  /** Of the baseline. */
  y: number;
  runs: TextRun[];
}

export interface TextLayout {
  size: number;
  lines: PlacedLine[];
  fit: Fit;
}

/** Smallest type size to which a value is shrunk, points. */
export const SMALLEST_SIZE = 5;
/** Largest automatic size of a multi-line field, points; common practice, no source. */
const LARGEST_AUTO_MULTILINE = 12;
/** Line height over ascender less descender; common practice, no source. */
const LEADING = 1.1;

/** Breaks text into lines no wider than `room` (of 1000 to the em); a word that is too long is broken anywhere. */
function wrap(text: string, choice: FaceChoice, room: number): string[] {
  const lines: string[] = [];
  const measure = (piece: string): number => runsWidth(shapeLine(piece, choice));
  for (const paragraph of text.split(/\r\n|\r|\n/)) {
    let line = '';
    for (const word of paragraph.match(/\S+\s*|\s+/gu) ?? []) {
      if (line === '' || measure((line + word).trimEnd()) <= room) {
        line += word;
      } else {
        lines.push(line.trimEnd());
        line = word;
      }
      while (measure(line.trimEnd()) > room && [...line.trimEnd()].length > 1) {
        const chars = [...line];
        let count = chars.length - 1;
        while (count > 1 && measure(chars.slice(0, count).join('')) > room) count--;
        lines.push(chars.slice(0, count).join(''));
        line = chars.slice(count).join('');
      }
    }
    lines.push(line.trimEnd());
  }
  return lines;
}

const metrics = (choice: FaceChoice): { ascender: number; descender: number } => ({
  ascender: choice.standard.ascender / 1000,
  descender: choice.standard.descender / 1000,
});

const place = (box: TextBox, padding: number, width: number): number =>
  box.quadding === 0 ? padding : box.quadding === 1 ? (box.width - width) / 2 : box.width - padding - width;

/** Sizes to try, from the wanted one down to the smallest. */
function* sizesFrom(wanted: number): Generator<number> {
  yield wanted;
  for (let size = Math.ceil(wanted * 2) / 2 - 0.5; size >= SMALLEST_SIZE; size -= 0.5) yield size;
}

function layoutComb(text: string, box: TextBox, choice: FaceChoice): TextLayout {
  const cell = box.width / box.comb;
  const { ascender, descender } = metrics(choice);
  const tallest = (box.height - 2 * box.border) / (ascender - descender);
  const size = box.size || Math.max(SMALLEST_SIZE, Math.min(tallest, cell * 1.1));
  const chars = [...text];
  const first = box.quadding === 0 ? 0 : box.quadding === 1 ? Math.floor((box.comb - chars.length) / 2) : box.comb - chars.length;
  const y = (box.height - (ascender + descender) * size) / 2;
  const lines = chars.slice(0, box.comb).map((char, index) => {
    const runs = shapeLine(char, choice);
    return { x: (Math.max(0, first) + index + 0.5) * cell - (runsWidth(runs) * size) / 2000, y, runs };
  });
  return { size, lines, fit: chars.length > box.comb ? 'overflows' : 'fits' };
}

function layoutLine(text: string, box: TextBox, choice: FaceChoice): TextLayout {
  const padding = Math.max(2, 2 * box.border);
  const runs = shapeLine(text.replace(/\r\n|\r|\n/g, ' '), choice);
  const width = runsWidth(runs) / 1000;
  const { ascender, descender } = metrics(choice);
  const room = Math.max(1, box.width - 2 * padding);
  const tallest = Math.max(SMALLEST_SIZE, (box.height - 2 * box.border) / (ascender - descender));
  const wanted = box.size || Math.min(tallest, Math.max(12, tallest * 0.8));
  const size = width * wanted <= room ? wanted : Math.max(Math.min(SMALLEST_SIZE, wanted), Math.floor((room / width) * 20) / 20);
  const fits = width * size <= room + 0.01;
  const fit: Fit = !fits
    ? 'overflows'
    : box.size && size < box.size
      ? 'tight'
      : box.size === 0 && size < Math.min(7, wanted)
        ? 'tight'
        : 'fits';
  const y = (box.height - (ascender + descender) * size) / 2;
  return { size, lines: [{ x: fits ? place(box, padding, width * size) : padding, y, runs }], fit };
}

function layoutBlock(text: string, box: TextBox, choice: FaceChoice): TextLayout {
  const padding = Math.max(2, 2 * box.border);
  const { ascender, descender } = metrics(choice);
  const room = Math.max(1, box.width - 2 * padding);
  const tall = Math.max(1, box.height - 2 * Math.max(1, box.border));
  const wanted = box.size || LARGEST_AUTO_MULTILINE;
  let chosen = { size: wanted, lines: [] as string[], fits: false };
  for (const size of sizesFrom(wanted)) {
    const lines = wrap(text, choice, (room * 1000) / size);
    const height = ((lines.length - 1) * LEADING + 1) * (ascender - descender) * size;
    chosen = { size, lines, fits: height <= tall + 0.01 };
    if (chosen.fits) break;
  }
  const lead = (ascender - descender) * LEADING * chosen.size;
  const top = box.height - Math.max(1, box.border) - ascender * chosen.size;
  const lines = chosen.lines.map((line, index) => {
    const runs = shapeLine(line, choice);
    return { x: place(box, padding, (runsWidth(runs) * chosen.size) / 1000), y: top - index * lead, runs };
  });
  const shrunk = chosen.size < (box.size || 7);
  return { size: chosen.size, lines, fit: !chosen.fits ? 'overflows' : shrunk ? 'tight' : 'fits' };
}

/** Lays text out in a box. Text that does not fit is shrunk down to SMALLEST_SIZE and then left to the clip; `fit` says which. */
export function layoutText(text: string, box: TextBox, choice: FaceChoice): TextLayout {
  if (box.comb > 0) return layoutComb(text, box, choice);
  return box.multiline ? layoutBlock(text, box, choice) : layoutLine(text, box, choice);
}
