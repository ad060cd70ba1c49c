import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';

/** A record as it is kept. */
export interface RecordRow {
  /** From 0. */
  ordinal: number;
  /** In the sheet. */
  row: number;
  /** As JSON. */
  cells: string;
}

export const sourceStore = {
  setCells: (sql: Sql, cells: unknown, sourceId: number, ordinal: number) =>
    run(sql, 'UPDATE source_record SET cells = ? WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND ordinal = ?', [
      JSON.stringify(cells),
      sourceId,
      ordinal,
    ]),

  textsOf: (sql: Sql, path: string, sourceId: number) =>
    rows<{ row: number; text: string | null }>(
      sql,
      'SELECT row, json_extract(cells, ?) AS text FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) ORDER BY ordinal',
      [path, sourceId],
    ),

  recordOfRow: (sql: Sql, sourceId: number, row: number) =>
    one<{
      ordinal: number;
      row: number;
      cells: string;
    }>(sql, 'SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND row = ?', [
      sourceId,
      row,
    ]),

  namesByConnection: (sql: Sql, connectionId: number) =>
    rows<{ name: string }>(sql, "SELECT name FROM source WHERE json_extract(query, '$.connectionId') = ? ORDER BY name", [connectionId]),

  unusedSince: (sql: Sql, since: string, again: string) =>
    rows<{ id: number }>(
      sql,
      `SELECT id FROM source WHERE state <> 'reading' AND COALESCE(readAt, createdAt) < ? AND NOT EXISTS
       (SELECT 1 FROM batch JOIN mailing ON mailing.id = batch.mailingId
        WHERE json_extract(mailing.plan, '$.sourceId') = source.id AND (batch.finishedAt IS NULL OR batch.finishedAt >= ?))`,
      [since, again],
    ),

  fileIds: (sql: Sql) =>
    rows<{ fileId: string }>(
      sql,
      "SELECT json_extract(file.value, '$.fileId') AS fileId FROM source, json_each(source.files) AS file UNION SELECT fileId FROM source UNION SELECT fileId FROM connection WHERE fileId IS NOT NULL",
    ),

  page: (sql: Sql, id: number, from: number, count: number) =>
    rows<RecordRow>(
      sql,
      'SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND ordinal >= ? ORDER BY ordinal LIMIT ?',
      [id, from, count],
    ),

  recordsAt: (sql: Sql, id: number, ordinals: readonly number[]) =>
    rows<RecordRow>(
      sql,
      `SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND ordinal IN (SELECT value FROM json_each(?))`,
      [id, JSON.stringify(ordinals)],
    ),

  stretch: (sql: Sql, id: number, from: number, to: number) =>
    rows<RecordRow>(
      sql,
      'SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND ordinal >= ? AND ordinal < ? ORDER BY ordinal',
      [id, from, to],
    ),

  dropReadings: (sql: Sql, sourceId: number) => run(sql, 'DELETE FROM source_reading WHERE sourceId = ?', [sourceId]),
};
