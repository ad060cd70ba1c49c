import { textFinder } from '@mailbag/core';
import { findingStore } from '../stores/finding.store.js';
import { recordStore } from '../stores/record.store.js';
import { recordBlocks } from './source-records.js';
import type { Tasks } from '../work/tasks.js';
import { threadSql } from './worker-database.js';

/** Places of records that a filter leaves; null: it leaves all. */
async function ordinalsOf({ mailingId, sourceId, only }: Tasks['matchRecords']['input']): Promise<Set<number> | null> {
  if (only === null) return null;
  const rows = only === 'looked' ? await findingStore.looked(threadSql(), mailingId) : await recordStore.corrected(threadSql(), sourceId);
  return new Set(rows.map(({ ordinal }) => ordinal));
}

/** Records that hold a text in any cell, among those that a filter leaves. */
export async function matchRecords(input: Tasks['matchRecords']['input']): Promise<Tasks['matchRecords']['output']> {
  const among = await ordinalsOf(input);
  const text = input.text.trim();
  const isIn = text === '' ? () => true : textFinder(text);
  const found: { ordinal: number; row: number }[] = [];
  for await (const { first, records } of recordBlocks(input.sourceId))
    records.forEach(({ row, cells }, index) => {
      if ((among === null || among.has(first + index)) && (text === '' || cells.some((cell) => isIn(cell.text))))
        found.push({ ordinal: first + index, row });
    });
  return found;
}
