import type { Cell, Column, SourceRecord } from '../tables/record.js';
import { emptyCell } from '../tables/record.js';

/** A record with its columns by name. A value asked from a column that is not there is empty. */
export interface Row {
  row: number;
  cell(column: string): Cell;
  /** The column of the source in which the value of a column stands: another one where a copy takes a later item of a repeated group. */
  source(column: string): string;
}

/** Reads records by column name. */
export function rowReader(columns: readonly Pick<Column, 'name'>[]): (record: SourceRecord) => Row {
  const index = new Map(columns.map((column, at) => [column.name, at]));
  return (record) => ({
    row: record.row,
    cell: (column) => record.cells[index.get(column) ?? -1] ?? emptyCell,
    source: (column) => column,
  });
}
