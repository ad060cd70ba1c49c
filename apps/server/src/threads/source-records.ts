import type { Cell, SourceRecord } from '@mailbag/core';
import type { RecordRow } from '../stores/record.store.js';
import { recordStore } from '../stores/record.store.js';
import { threadSql } from './worker-database.js';

const BLOCK = 500;

const toRecord = ({ row, cells }: Pick<RecordRow, 'row' | 'cells'>): SourceRecord => ({ row, cells: JSON.parse(cells) as Cell[] });

/** Records of a source in blocks, so that a large one is never in memory whole. @param start place of the first one, from 0 @param end place after the last one */
export async function* recordBlocks(
  sourceId: number,
  start = 0,
  end = Infinity,
): AsyncGenerator<{ first: number; records: SourceRecord[] }> {
  const reading = await recordStore.readingOf(threadSql(), sourceId);
  if (reading !== null) yield* blocksOfReading(reading, start, end);
}

export async function* blocksOfReading(
  reading: number,
  start = 0,
  end = Infinity,
): AsyncGenerator<{ first: number; records: SourceRecord[] }> {
  for (let from = start; from < end; from += BLOCK) {
    const rows = await recordStore.block(threadSql(), reading, from, Math.min(BLOCK, end - from));
    if (rows.length === 0) return;
    yield { first: from, records: rows.map(toRecord) };
  }
}

/** The record at a place of a reading; undefined: there is none. */
export async function recordAt(reading: number, ordinal: number): Promise<SourceRecord | undefined> {
  const found = await recordStore.recordOf(threadSql(), reading, ordinal);
  return found && toRecord(found);
}
