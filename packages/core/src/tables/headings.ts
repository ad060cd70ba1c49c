import type { SourceNote } from './record.js';
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
