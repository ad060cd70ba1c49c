import type { FillContext } from '../map/fill-context.js';
import type { Column, SourceRecord } from '../tables/record.js';
import { cellText } from '../tables/record.js';

/**
 * The data of a record for patterns: text as seen by slug, stray spaces taken off, and what `patternExtras` name. A column named like an extra goes first.
 * @param only names that are asked for: of a wide sheet, a pattern uses few columns
 */
export function patternData(
  columns: readonly Pick<Column, 'slug'>[],
  record: SourceRecord,
  { batch, number, today, code, link = '', template }: FillContext & { template: string },
  only?: ReadonlySet<string>,
): Record<string, unknown> {
  const data: Record<string, unknown> = { code, template, batch: String(batch), number: String(number), today, link };
  columns.forEach((column, index) => {
    if (!only || only.has(column.slug)) data[column.slug] = cellText(record, index).trim();
  });
  return data;
}
