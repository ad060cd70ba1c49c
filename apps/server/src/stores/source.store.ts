import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql, Statement } from '../persistence/sql.js';
import { rows, run } from '../persistence/sql.js';

export const sourceStore = {
  /** @param alsoDeleted those in the wastebasket too */
  namesByConnection: (sql: Sql, connectionId: number, alsoDeleted = false) =>
    rows<{ name: string }>(
      sql,
      `SELECT name FROM source WHERE ${dialect.at('query', 'connectionId')} = ?${alsoDeleted ? '' : ' AND deletedAt IS NULL'} ORDER BY name`,
      [connectionId],
    ),

  unusedSince: (sql: Sql, since: string, again: string) =>
    rows<{ id: number }>(
      sql,
      `SELECT id FROM source WHERE state <> 'reading' AND kind <> 'intake' AND COALESCE(readAt, createdAt) < ? AND NOT EXISTS
       (SELECT 1 FROM batch JOIN mailing ON mailing.id = batch.mailingId
        WHERE mailing.sourceId = source.id AND (batch.finishedAt IS NULL OR batch.finishedAt >= ?))`,
      [since, again],
    ),

  fileIds: (sql: Sql) =>
    rows<{ fileId: string }>(
      sql,
      `SELECT ${dialect.at('file.value', 'fileId')} AS fileId FROM source, ${dialect.each('source.files', 'file')} UNION SELECT fileId FROM source UNION SELECT fileId FROM connection WHERE fileId IS NOT NULL`,
    ),

  setProgress: (id: number, records: number): Statement => ({ text: 'UPDATE source SET progress = ? WHERE id = ?', values: [records, id] }),

  /** A reading that is whole takes the place of the one before. */
  take: (
    sql: Sql,
    id: number,
    reading: {
      readingId: number;
      count: number;
      columns: unknown;
      notes: unknown;
      reading: unknown;
      keyColumn: string | null;
      changes: unknown;
      readAt: string;
    },
  ) =>
    run(
      sql,
      `UPDATE source SET readingId = ?, state = 'ready', error = NULL, attempts = 0, count = ?, columns = ?, notes = ?, reading = ?, keyColumn = ?, changes = ?, readAt = ? WHERE id = ?`,
      [
        reading.readingId,
        reading.count,
        JSON.stringify(reading.columns),
        JSON.stringify(reading.notes),
        JSON.stringify(reading.reading),
        reading.keyColumn,
        reading.changes === null ? null : JSON.stringify(reading.changes),
        reading.readAt,
        id,
      ],
    ),
};
