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

/**
 * The data of a record for patterns: text as seen by slug, stray spaces taken off, and the extras. A column named like an extra goes first.
 * @param only names that are asked for: of a wide sheet, a pattern uses few columns
 */
export function patternData(
  columns: readonly Pick<Column, 'slug'>[],
  record: SourceRecord,
  extras: PatternExtras,
  only?: ReadonlySet<string>,
): Record<string, unknown> {
  const data: Record<string, unknown> = { ...extras };
  columns.forEach((column, index) => {
    if (!only || only.has(column.slug)) data[column.slug] = cellText(record, index).trim();
  });
  return data;
}
