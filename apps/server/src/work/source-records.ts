import type { Cell, SourceRecord } from '@mailbag/core';
import { workerDatabase } from './worker-database.js';

const BLOCK = 500;

/** The number of the reading whose records a source has now; null: none was whole yet. */
export function readingOf(sourceId: number): number | null {
  const found = workerDatabase().prepare('SELECT readingId FROM source WHERE id = ?').get([sourceId]) as
    { readingId: number | null } | undefined;
  return found?.readingId ?? null;
}

/** Records of a source in blocks, so that a large one is never in memory whole. */
export function* recordBlocks(sourceId: number): Generator<{ first: number; records: SourceRecord[] }> {
  const reading = readingOf(sourceId);
  if (reading !== null) yield* blocksOfReading(reading);
}

export function* blocksOfReading(reading: number): Generator<{ first: number; records: SourceRecord[] }> {
  const select = workerDatabase().prepare(
    'SELECT ordinal, row, cells FROM source_record WHERE readingId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?',
  );
  for (let from = 0; ; from += BLOCK) {
    const rows = select.all([reading, from, BLOCK]) as { ordinal: number; row: number; cells: string }[];
    if (rows.length === 0) return;
    yield { first: from, records: rows.map(({ row, cells }) => ({ row, cells: JSON.parse(cells) as Cell[] })) };
  }
}

/** The record at a place of a reading; undefined: there is none. */
export function recordAt(reading: number, ordinal: number): SourceRecord | undefined {
  const found = workerDatabase()
    .prepare('SELECT row, cells FROM source_record WHERE readingId = ? AND ordinal = ?')
    .get([reading, ordinal]) as { row: number; cells: string } | undefined;
  return found && { row: found.row, cells: JSON.parse(found.cells) as Cell[] };
}
