import type { Column, SourceRecord } from '../tables/record.js';
import { cellText } from '../tables/record.js';

/** What `patternExtras` hold for one copy. */
export interface PatternExtras {
  code: string;
  template: string;
  /** Number of the batch. */
  batch: string;
  /** Place of the record in the batch, from 1. */
  number: string;
  /** ISO 8601 date. */
  today: string;
}

/** The data of a record for patterns: text as seen by slug, stray spaces taken off, and the extras. A column named like an extra goes first. */
export function patternData(
  columns: readonly Pick<Column, 'slug'>[],
  record: SourceRecord,
  extras: PatternExtras,
): Record<string, unknown> {
  const data: Record<string, unknown> = { ...extras };
  columns.forEach((column, index) => {
    data[column.slug] = cellText(record, index).trim();
  });
  return data;
}
