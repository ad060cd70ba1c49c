import { emptyCell } from '../tables/record.js';
import type { SourceRecord } from '../tables/record.js';
import { trimEnds } from '../text/trim.js';
import type { Row } from './row.js';

/** How many copies of a template a record gets: one for so many items of a repeated group, as many as it takes. */
export interface CopyCount {
  /** Columns of each item, its parts in the same order; empty: an item has no column for that part. */
  items: string[][];
  /** Items that one copy takes, from 1. */
  perCopy: number;
}

/** Columns of a source that say the same of one thing after the other: `child1_name`, `child2_name`. */
export interface RepeatedGroup {
  /** What one item is called: “child”. */
  name: string;
  /** What its parts are called. */
  parts: string[];
  items: string[][];
}

/** Something that is given as a count, read as one; null: it is none. */
export function parseCopyCount(given: unknown): CopyCount | null {
  const { items, perCopy } = (given ?? {}) as Partial<CopyCount>;
  const isRight =
    Array.isArray(items) &&
    items.length > 0 &&
    items.every((item) => Array.isArray(item) && item.length === items[0]!.length && item.every((name) => typeof name === 'string')) &&
    Number.isInteger(perCopy) &&
    perCopy! >= 1;
  return isRight ? { items, perCopy: Math.min(perCopy!, items.length) } : null;
}

/** A record as one copy sees it: the columns of the first items stand for those of the items that go into it. */
function shifted(row: Row, { items, perCopy }: CopyCount, own: readonly (readonly string[])[]): Row {
  const names = new Map<string, string>();
  for (const [at, item] of items.entries())
    for (const [part, name] of item.entries()) if (name !== '') names.set(name, (at < perCopy && own[at]?.[part]) || '');
  const source = (column: string): string => names.get(column) ?? column;
  return {
    row: row.row,
    cell: (column) => (names.get(column) === '' ? emptyCell : row.cell(source(column))),
    source: (column) => row.source(source(column) || column),
  };
}

/** A record as each of its copies sees it. Items of which nothing is filled in are passed over, so there may be no copy at all. */
export function copyRows(count: CopyCount | null | undefined, row: Row): Row[] {
  if (!count) return [row];
  const there = count.items.filter((item) => item.some((name) => name !== '' && row.cell(name).text.trim() !== ''));
  return Array.from({ length: Math.ceil(there.length / count.perCopy) }, (_, at) =>
    shifted(row, count, there.slice(at * count.perCopy, (at + 1) * count.perCopy)),
  );
}

/** The record that a row shows. */
export const recordOf = (row: Row, columns: readonly { name: string }[]): SourceRecord => ({
  row: row.row,
  cells: columns.map(({ name }) => row.cell(name)),
});

/** The columns that a copy may read for one of them, through the items that stand for one another. */
export const columnsThrough = ({ items, perCopy }: CopyCount, read: readonly string[]): string[] =>
  items
    .slice(0, perCopy)
    .flatMap((item) =>
      item.flatMap((name, part) =>
        name !== '' && read.includes(name) ? items.map((other) => other[part]!).filter((one) => one !== '') : [],
      ),
    );

/** Words without the marks between them. */
const bare = (words: string): string => trimEnds(words, /[\s_.:#-]/);
const numbered = /^(\D*)(\d{1,3})(\D*)$/;

/** What comes before the number and after it, and which columns it numbers. */
interface Series {
  before: string;
  after: string;
  columns: Map<number, string>;
}

/** A group that series with the same numbers make, or null: it is not numbered from 1 on, or only once. */
function groupOf(name: string, all: readonly Series[], nameOf: (series: Series) => string): RepeatedGroup | null {
  const last = Math.max(...all.flatMap(({ columns }) => [...columns.keys()]));
  const isFull = Array.from({ length: last }, (_, at) => at + 1).every((number) => all.some(({ columns }) => columns.has(number)));
  if (last < 2 || last > 200 || !isFull || name === '') return null;
  return {
    name,
    parts: all.map(nameOf),
    items: Array.from({ length: last }, (_, at) => all.map(({ columns }) => columns.get(at + 1) ?? '')),
  };
}

/** Repeated groups among columns, by the numbers in their names: `child1_name`, `Plot 1`, “Name of child 1”. Common practice, no source. */
export function repeatedGroups(columns: readonly { name: string }[]): RepeatedGroup[] {
  const series = new Map<string, Series>();
  for (const { name } of columns) {
    const [, before = '', number = '', after = ''] = numbered.exec(name) ?? [];
    if (number === '' || Number(number) === 0 || (before + after).trim() === '') continue;
    const key = JSON.stringify([before, after]);
    if (!series.has(key)) series.set(key, { before, after, columns: new Map() });
    series.get(key)!.columns.set(Number(number), name);
  }
  const all = [...series.values()];
  const within = all.filter(({ after }) => after !== '');
  const atEnd = all.filter(({ after }) => after === '');
  const groups: (RepeatedGroup | null)[] = [];
  for (const before of new Set(within.map((one) => one.before)))
    groups.push(
      groupOf(
        bare(before) || 'item',
        within.filter((one) => one.before === before),
        ({ after }) => bare(after),
      ),
    );
  // Numbers at the end say which item it is, and what stands before them which part: those that go as far belong together.
  for (const length of new Set(atEnd.map((one) => one.columns.size))) {
    const own = atEnd.filter((one) => one.columns.size === length);
    const lastWords = new Set(
      own.map(({ before }) =>
        bare(before)
          .split(/[\s_.:#-]/)
          .at(-1)!
          .toLowerCase(),
      ),
    );
    const [word = ''] = lastWords;
    const partOf = ({ before }: Series): string => bare(before);
    groups.push(groupOf(lastWords.size === 1 ? word : own.map(partOf).join(', '), own, partOf));
    // “Phone 1” and “Child 1” may as well be two things.
    if (lastWords.size > 1) for (const one of own) groups.push(groupOf(partOf(one).toLowerCase(), [one], partOf));
  }
  return groups.filter((group) => group !== null);
}
