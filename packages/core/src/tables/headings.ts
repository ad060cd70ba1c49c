import type { Cell, SourceNote } from './record.js';
import { trimEnds } from '../text/trim.js';

/** The name of a column in patterns: lower case letters, digits and underscores. */
export function slugOf(name: string): string {
  const words = name
    .normalize('NFKD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '_');
  const slug = trimEnds(words, /_/);
  return /^\p{N}/u.test(slug) || slug === '' ? `c_${slug}` : slug;
}

/** Letters of a column by its place, as spreadsheets count: 0 is A, 26 is AA. */
export function columnLetters(index: number): string {
  let letters = '';
  for (let rest = index + 1; rest > 0; rest = Math.floor((rest - 1) / 26)) letters = String.fromCharCode(65 + ((rest - 1) % 26)) + letters;
  return letters;
}

/** Headings cleaned and made unique, with slugs, and what was odd about them. */
export function headingNames(cells: readonly string[]): { names: string[]; slugs: string[]; notes: SourceNote[] } {
  const empty: string[] = [];
  const doubled: string[] = [];
  const names: string[] = [];
  const slugs: string[] = [];
  const [takenNames, takenSlugs] = [new Set<string>(), new Set<string>()];
  const unique = (wanted: string, taken: Set<string>, join: string): string => {
    for (let count = 1; ; count++) {
      const name = count === 1 ? wanted : `${wanted}${join}${count}`;
      if (taken.has(name.toLowerCase())) continue;
      taken.add(name.toLowerCase());
      return name;
    }
  };
  cells.forEach((cell, index) => {
    let name = cell.replace(/[\s\u00a0\u200b\ufeff]+/g, ' ').trim();
    if (!name) {
      name = `Column ${columnLetters(index)}`;
      empty.push(name);
    }
    const own = unique(name, takenNames, ' ');
    if (own !== name) doubled.push(own);
    names.push(own);
    slugs.push(unique(slugOf(own), takenSlugs, '_'));
  });
  const notes: SourceNote[] = [];
  if (empty.length > 0) notes.push({ code: 'empty-heading', count: empty.length, names: empty });
  if (doubled.length > 0) notes.push({ code: 'double-heading', count: doubled.length, names: doubled });
  return { names, slugs, notes };
}

interface Merge {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/**
 * The lower one of two rows of headings: above it stands a row of which some cells are merged across several columns, and below those it names each.
 * @param rows the first ones, with their numbers @returns 0-based index in `rows`; null: there are no two
 */
export function twoHeadingRows(rows: readonly { row: number; cells: readonly string[] }[], merges: readonly Merge[]): number | null {
  for (let index = 1; index < Math.min(10, rows.length - 1); index++) {
    const [upper, lower] = [rows[index - 1]!, rows[index]!];
    const across = merges.filter(({ top, bottom, left, right }) => top === upper.row && bottom === upper.row && right > left);
    const width = Math.max(lower.cells.length, rows[index + 1]!.cells.length);
    // One cell over the whole width is a title.
    const groups = across.filter(({ left, right }) => right - left + 1 < width);
    const named = groups.every(({ left, right }) =>
      Array.from({ length: right - left + 1 }, (_, at) => lower.cells[left + at]?.trim() ?? '').every(
        (text) => text !== '' && !/^[\d\s.,:/-]+$/.test(text),
      ),
    );
    if (groups.length > 0 && named && lower.row === upper.row + 1) return index;
  }
  return null;
}

/** Texts of the upper row of two, each over all columns that it is merged across; null: there is only one row of headings. */
export function upperHeadings(
  { headingRow, rows }: { headingRow: number; rows: readonly { row: number; cells: readonly string[] }[] },
  merges: readonly Merge[],
): string[] | null {
  const at = twoHeadingRows(rows, merges);
  if (at === null || rows[at]!.row !== headingRow) return null;
  const upper = rows[at - 1]!;
  const texts = [...upper.cells];
  for (const { top, left, right } of merges)
    if (top === upper.row) for (let column = left; column <= Math.min(right, 2000); column++) texts[column] = upper.cells[left] ?? '';
  return texts;
}

/** Headings of two rows in one: what stands above, then what stands below. */
export const joinedHeadings = (upper: readonly string[], lower: readonly (Cell | undefined)[]): Cell[] =>
  Array.from({ length: Math.max(upper.length, lower.length) }, (_, index) => {
    const parts = [upper[index]?.trim() ?? '', lower[index]?.text.trim() ?? ''].filter(Boolean);
    const text = parts[0] === parts[1] ? (parts[0] ?? '') : parts.join(' ');
    return { text, value: text === '' ? null : text };
  });

/**
 * Guesses which row holds the headings: the first that is as wide as the rows below it, holds text only and no value twice.
 * @returns 0-based index in `rows`
 */
export function guessHeadingRow(rows: readonly (readonly string[])[]): number {
  const width = (row: readonly string[]): number => row.filter((cell) => cell.trim()).length;
  const widths = rows
    .map(width)
    .filter((one) => one > 0)
    .sort((a, b) => a - b);
  const usual = widths[Math.floor(widths.length / 2)] ?? 1;
  let best = { index: 0, score: -1 };
  rows.slice(0, 30).forEach((row, index) => {
    const filled = row.map((cell) => cell.trim()).filter(Boolean);
    if (filled.length === 0) return;
    const texts = filled.filter((cell) => !/^[\d\s.,:/€$£%+-]+$/.test(cell)).length / filled.length;
    const different = new Set(filled.map((cell) => cell.toLowerCase())).size / filled.length;
    const short = filled.filter((cell) => cell.length <= 40).length / filled.length;
    const score = Math.min(1, filled.length / usual) * 3 + texts * 2 + different / 2 + short - index * 0.25;
    if (score > best.score) best = { index, score };
  });
  return best.index;
}
