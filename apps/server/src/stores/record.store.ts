import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql, Statement } from '../persistence/sql.js';
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

/** Records of sources. They lie under the number of a reading, so that a source has the earlier ones until the next are whole. */
export const recordStore = {
  /**
   * Changes the cells of records that are there. Written as an insertion that meets them by their key: an update from a list would go through the list
   * for each record of the source.
   */
  setCells: (sql: Sql, sourceId: number, records: readonly { ordinal: number; row: number; cells: unknown }[]) =>
    run(
      sql,
      `INSERT INTO source_record (readingId, ordinal, row, cells)
       SELECT (SELECT readingId FROM source WHERE id = ?), CAST(${dialect.at('one.value', 0)} AS INTEGER), CAST(${dialect.at('one.value', 1)} AS INTEGER), ${dialect.at('one.value', 2)}
       FROM ${dialect.items('one')} WHERE true
       ON CONFLICT (readingId, ordinal) DO UPDATE SET cells = excluded.cells`,
      [sourceId, JSON.stringify(records.map(({ ordinal, row, cells }) => [ordinal, row, JSON.stringify(cells)]))],
    ),

  /** Records by their rows in the sheet. */
  recordsOfRows: (sql: Sql, sourceId: number, places: readonly number[]) =>
    rows<RecordRow>(
      sql,
      `SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND row ${dialect.inIds}`,
      [sourceId, JSON.stringify(places)],
    ),

  /**
   * A column of all records in their order, read as one text: 100,000 rows take three times as long one by one.
   * @param index of the column
   * @param part its texts alone, or its cells as JSON
   */
  columnOf: async (sql: Sql, readingId: number, index: number, part: 'text' | 'cell'): Promise<(string | null)[]> => {
    const item = part === 'text' ? dialect.at('cells', index, 'text') : dialect.at('cells', index);
    const found = await one<{ list: string | null }>(
      sql,
      `SELECT ${dialect.gathered('item')} AS list FROM (SELECT ${item} || '' AS item FROM source_record WHERE readingId = ? ORDER BY ordinal) AS items`,
      [readingId],
    );
    return JSON.parse(found?.list ?? '[]') as (string | null)[];
  },

  /** The records of a source as they are now: with every correction it is another. */
  stampOf: (sql: Sql, sourceId: number) =>
    one<{ readingId: number | null; corrected: number; last: number | null }>(
      sql,
      `SELECT readingId, (SELECT COUNT(*) FROM correction WHERE sourceId = source.id AND state = 'active') AS corrected,
         (SELECT MAX(id) FROM correction WHERE sourceId = source.id) AS last FROM source WHERE id = ?`,
      [sourceId],
    ),

  /** Records as JSON in their order, one in a line; empty: there is none at these places. */
  linesOf: async (sql: Sql, readingId: number, from: number, to: number): Promise<string> =>
    (await one<{ lines: string | null }>(
      sql,
      `SELECT ${dialect.lines('cells')} AS lines FROM (SELECT cells FROM source_record WHERE readingId = ? AND ordinal >= ? AND ordinal < ? ORDER BY ordinal) AS records`,
      [readingId, from, to],
    ))!.lines ?? '',

  /** Texts of a column of all records. @param index of the column */
  textsOf: (sql: Sql, sourceId: number, index: number) =>
    rows<{ row: number; text: string | null }>(
      sql,
      `SELECT row, ${dialect.at('cells', index, 'text')} AS text FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) ORDER BY ordinal`,
      [sourceId],
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

  page: (sql: Sql, id: number, from: number, count: number) =>
    rows<RecordRow>(
      sql,
      'SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND ordinal >= ? ORDER BY ordinal LIMIT ?',
      [id, from, count],
    ),

  recordsAt: (sql: Sql, id: number, ordinals: readonly number[]) =>
    rows<RecordRow>(
      sql,
      `SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND ordinal ${dialect.inIds}`,
      [id, JSON.stringify(ordinals)],
    ),

  stretch: (sql: Sql, id: number, from: number, to: number) =>
    rows<RecordRow>(
      sql,
      'SELECT ordinal, row, cells FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND ordinal >= ? AND ordinal < ? ORDER BY ordinal',
      [id, from, to],
    ),

  dropReadings: (sql: Sql, sourceId: number) => run(sql, 'DELETE FROM source_reading WHERE sourceId = ?', [sourceId]),

  /** The number of the reading whose records a source has now; null: none was whole yet. */
  readingOf: async (sql: Sql, id: number) =>
    (await one<{ readingId: number | null }>(sql, 'SELECT readingId FROM source WHERE id = ?', [id]))?.readingId ?? null,

  block: (sql: Sql, readingId: number, from: number, limit: number) =>
    rows<RecordRow>(sql, 'SELECT ordinal, row, cells FROM source_record WHERE readingId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?', [
      readingId,
      from,
      limit,
    ]),

  recordOf: (sql: Sql, readingId: number, ordinal: number) =>
    one<RecordRow>(sql, 'SELECT ordinal, row, cells FROM source_record WHERE readingId = ? AND ordinal = ?', [readingId, ordinal]),

  /** Places of records in which a correction holds. */
  corrected: (sql: Sql, id: number) =>
    rows<{ ordinal: number }>(
      sql,
      "SELECT ordinal FROM source_record WHERE readingId = (SELECT readingId FROM source WHERE id = ?) AND row IN (SELECT row FROM correction WHERE sourceId = ? AND state = 'active')",
      [id, id],
    ),

  /** A number for records to come; what an earlier try has left under another goes. @param kept the reading that stays */
  async startReading(sql: Sql, id: number, kept: number | null): Promise<number> {
    await run(sql, `DELETE FROM source_reading WHERE sourceId = ? AND id IS DISTINCT FROM ?`, [id, kept]);
    return (await one<{ id: number }>(sql, 'INSERT INTO source_reading (sourceId) VALUES (?) RETURNING id', [id]))!.id;
  },

  /** A record that is written down as it is read. */
  addRecord: (readingId: number, ordinal: number, row: number, cells: unknown): Statement => ({
    text: 'INSERT INTO source_record (readingId, ordinal, row, cells) VALUES (?, ?, ?, ?)',
    values: [readingId, ordinal, row, JSON.stringify(cells)],
  }),

  setCellsOf: (sql: Sql, readingId: number, ordinal: number, cells: unknown) =>
    run(sql, 'UPDATE source_record SET cells = ? WHERE readingId = ? AND ordinal = ?', [JSON.stringify(cells), readingId, ordinal]),

  dropReading: (sql: Sql, readingId: number) => run(sql, 'DELETE FROM source_reading WHERE id = ?', [readingId]),

  /** Numbers of readings that belong to no source, neither one that is there nor one that is being read. */
  dropLooseReadings: (sql: Sql) =>
    run(
      sql,
      `DELETE FROM source_reading WHERE id NOT IN (SELECT readingId FROM source WHERE readingId IS NOT NULL)
       AND sourceId NOT IN (SELECT id FROM source WHERE state = 'reading')`,
    ),

  /** The next reading that has records; null: there is none. */
  nextWithRecords: async (sql: Sql, after: number) =>
    (await one<{ id: number | null }>(sql, 'SELECT MIN(readingId) AS id FROM source_record WHERE readingId > ?', [after]))!.id,

  hasReading: async (sql: Sql, readingId: number) => (await rows(sql, 'SELECT 1 FROM source_reading WHERE id = ?', [readingId])).length > 0,

  /** Drops the first records of a reading. @returns whether there are more */
  async dropRecords(sql: Sql, readingId: number, maximum: number): Promise<boolean> {
    const last = await one<{ ordinal: number }>(
      sql,
      'SELECT ordinal FROM source_record WHERE readingId = ? ORDER BY ordinal LIMIT 1 OFFSET ?',
      [readingId, maximum],
    );
    await run(sql, 'DELETE FROM source_record WHERE readingId = ? AND ordinal <= ?', [readingId, last?.ordinal ?? Number.MAX_SAFE_INTEGER]);
    return last !== undefined;
  },

  /**
   * Adds records after those that a source has; nothing of those is changed. A source that has none yet begins with them.
   * @param records cells by the source's columns @returns places of the first and after the last of them
   */
  async append(sql: Sql, sourceId: number, records: readonly { cells: unknown }[]): Promise<{ from: number; to: number }> {
    let readingId = await recordStore.readingOf(sql, sourceId);
    if (readingId === null) {
      readingId = await recordStore.startReading(sql, sourceId, null);
      await run(sql, "UPDATE source SET readingId = ?, state = 'ready' WHERE id = ?", [readingId, sourceId]);
    }
    const last = await one<{ ordinal: number; row: number }>(
      sql,
      'SELECT ordinal, row FROM source_record WHERE readingId = ? ORDER BY ordinal DESC LIMIT 1',
      [readingId],
    );
    const from = (last?.ordinal ?? -1) + 1;
    // Row 1 is the headings', as in a sheet.
    const firstRow = (last?.row ?? 1) + 1;
    for (const [index, { cells }] of records.entries()) {
      const { text, values } = recordStore.addRecord(readingId, from + index, firstRow + index, cells);
      await run(sql, text, values);
    }
    await run(sql, 'UPDATE source SET count = count + ? WHERE id = ?', [records.length, sourceId]);
    return { from, to: from + records.length };
  },
};
