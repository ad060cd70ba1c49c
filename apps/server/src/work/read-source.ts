import type { SourceRecord } from '@mailbag/core';
import { readTable } from '@mailbag/core';
import { tableFile } from '@mailbag/host';
import type { Tasks } from './tasks.js';
import { workerDatabase } from './worker-database.js';

/** Reads a file's records into the database, a block a transaction. What an earlier, broken-off reading left is taken away first. */
export async function readSource({ sourceId, path, file, reading }: Tasks['readSource']['input']): Promise<Tasks['readSource']['output']> {
  const database = workerDatabase();
  database.prepare('DELETE FROM source_record WHERE sourceId = ?').run([sourceId]);
  const insert = database.prepare('INSERT INTO source_record (sourceId, ordinal, row, cells) VALUES (?, ?, ?, ?)');
  let ordinal = 0;
  const write = database.transaction((records: SourceRecord[]) => {
    for (const record of records) insert.run([sourceId, ordinal++, record.row, JSON.stringify(record.cells)]);
  });
  return readTable(await tableFile(path, file), reading, (records) => write(records));
}
