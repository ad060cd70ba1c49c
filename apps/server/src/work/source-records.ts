import type { Cell, SourceRecord } from '@mailbag/core';
import { workerDatabase } from './worker-database.js';

const BLOCK = 500;

/** Records of a source in blocks, so that a large one is never in memory whole. */
export function* recordBlocks(sourceId: number): Generator<{ first: number; records: SourceRecord[] }> {
  const select = workerDatabase().prepare(
    'SELECT ordinal, row, cells FROM source_record WHERE sourceId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?',
  );
  for (let from = 0; ; from += BLOCK) {
    const rows = select.all([sourceId, from, BLOCK]) as { ordinal: number; row: number; cells: string }[];
    if (rows.length === 0) return;
    yield { first: from, records: rows.map(({ row, cells }) => ({ row, cells: JSON.parse(cells) as Cell[] })) };
  }
}

/** The record at a place; undefined: there is none. */
export function recordAt(sourceId: number, ordinal: number): SourceRecord | undefined {
  const found = workerDatabase()
    .prepare('SELECT row, cells FROM source_record WHERE sourceId = ? AND ordinal = ?')
    .get([sourceId, ordinal]) as { row: number; cells: string } | undefined;
  return found && { row: found.row, cells: JSON.parse(found.cells) as Cell[] };
}
