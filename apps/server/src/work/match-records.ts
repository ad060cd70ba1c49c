import { textFinder } from '@mailbag/core';
import { recordBlocks } from './source-records.js';
import type { Tasks } from './tasks.js';
import { workerDatabase } from './worker-database.js';

/** Places of records that a filter leaves; null: it leaves all. */
function ordinalsOf({ mailingId, sourceId, only }: Tasks['matchRecords']['input']): Set<number> | null {
  const database = workerDatabase();
  if (only === 'looked') {
    const rows = database
      .prepare("SELECT DISTINCT ordinal FROM finding WHERE mailingId = ? AND severity = 'look' AND acceptanceId IS NULL")
      .all([mailingId]);
    return new Set((rows as { ordinal: number }[]).map(({ ordinal }) => ordinal));
  }
  if (only === 'corrected') {
    const rows = database
      .prepare(
        "SELECT ordinal FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND row IN (SELECT row FROM correction WHERE sourceId = ? AND state = 'active')",
      )
      .all([sourceId, sourceId]);
    return new Set((rows as { ordinal: number }[]).map(({ ordinal }) => ordinal));
  }
  return null;
}

/** Records that hold a text in any cell, among those that a filter leaves. */
export function matchRecords(input: Tasks['matchRecords']['input']): Tasks['matchRecords']['output'] {
  const among = ordinalsOf(input);
  const text = input.text.trim();
  const isIn = text === '' ? () => true : textFinder(text);
  const found: { ordinal: number; row: number }[] = [];
  for (const { first, records } of recordBlocks(input.sourceId))
    records.forEach(({ row, cells }, index) => {
      if ((among === null || among.has(first + index)) && (text === '' || cells.some((cell) => isIn(cell.text))))
        found.push({ ordinal: first + index, row });
    });
  return found;
}
