import type { Said } from '@mailbag/core';
import { readSaid } from '@mailbag/core';

/** Rows as they are kept, with what was said read. */
export async function withRemarks<Row extends { said: Said | null }>(
  found: Promise<readonly (Omit<Row, 'said'> & { said: string | null })[]>,
): Promise<Row[]> {
  return (await found).map((row) => ({ ...row, said: readSaid(row.said) }) as unknown as Row);
}
