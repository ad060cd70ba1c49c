import type { CheckSetup } from '../checks/check.js';
import { checkRecords } from '../checks/check-records.js';
import type { Finding } from '../checks/finding.js';
import type { Column, ColumnKind, SourceRecord } from '../tables/record.js';
import { someContext } from './context.js';

/** A cell by its text, or by its text and its typed value. */
export type TestCell = string | readonly [text: string, value: string | number];
export type TestRows = readonly (readonly TestCell[])[];

/** A column of many different values. */
export const columnOf = (name: string, kind: ColumnKind, more: Partial<Column> = {}): Column => ({
  name,
  slug: name.toLowerCase(),
  kind,
  empty: 0,
  distinct: 9,
  longest: '',
  examples: [],
  ...more,
});

/** Records from row 2 on, as below one row of headings. */
export const recordsOf = (rows: TestRows): SourceRecord[] =>
  rows.map((cells, at) => ({
    row: at + 2,
    cells: cells.map((cell) => (typeof cell === 'string' ? { text: cell, value: cell } : { text: cell[0], value: cell[1] })),
  }));

/** What the checks say of some rows, of one code or of all. */
export const findingsIn = (
  columns: readonly Column[],
  rows: TestRows,
  setup: Partial<CheckSetup> = {},
  code: string | null = null,
): Finding[] =>
  checkRecords(
    { context: someContext, columns, templates: [], keyColumn: null, addressColumn: null, plan: {}, ...setup },
    recordsOf(rows),
  ).filter((finding) => code === null || finding.code === code);

/** The same for one column of texts: which of them are told, each with what is proposed in its place. */
export const toldOf = (
  kind: ColumnKind,
  texts: readonly TestCell[],
  code: string,
  setup: Partial<CheckSetup> = {},
  name = 'Value',
): [text: string, mend: string | null][] =>
  findingsIn(
    [columnOf(name, kind)],
    texts.map((text) => [text]),
    setup,
    code,
  ).map(({ value, mend = null }) => [value, mend]);
