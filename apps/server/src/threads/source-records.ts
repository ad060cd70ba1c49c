import type { Cell, SourceRecord } from '@mailbag/core';
import type { RecordRow } from '../stores/record.store.js';
import { recordStore } from '../stores/record.store.js';
import { threadSql } from './worker-database.js';

const BLOCK = 500;

const toRecord = ({ row, cells }: Pick<RecordRow, 'row' | 'cells'>): SourceRecord => ({ row, cells: JSON.parse(cells) as Cell[] });

/** Records of a source in blocks, so that a large one is never in memory whole. */
export async function* recordBlocks(sourceId: number): AsyncGenerator<{ first: number; records: SourceRecord[] }> {
  const reading = await recordStore.readingOf(threadSql(), sourceId);
  if (reading !== null) yield* blocksOfReading(reading);
}

export async function* blocksOfReading(reading: number): AsyncGenerator<{ first: number; records: SourceRecord[] }> {
  for (let from = 0; ; from += BLOCK) {
    const rows = await recordStore.block(threadSql(), reading, from, BLOCK);
    if (rows.length === 0) return;
    yield { first: from, records: rows.map(toRecord) };
  }
}

/** The record at a place of a reading; undefined: there is none. */
export async function recordAt(reading: number, ordinal: number): Promise<SourceRecord | undefined> {
  const found = await recordStore.recordOf(threadSql(), reading, ordinal);
  return found && toRecord(found);
}
