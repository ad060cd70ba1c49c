import type { Detail } from '@mailbag/core';
import { parseDetail } from '@mailbag/core';

/** Rows as they are kept, with what was said read. */
export async function withRemarks<Row extends { detail: Detail | null }>(
  found: Promise<readonly (Omit<Row, 'detail'> & { detail: string | null })[]>,
): Promise<Row[]> {
  return (await found).map((row) => ({ ...row, detail: parseDetail(row.detail) }) as unknown as Row);
}
