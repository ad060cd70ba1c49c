import type { MigrationInterface, QueryRunner } from 'typeorm';

const steps = [
  // Files of a source as [{ fileId, fileName }]; null for a database, which has its query.
  `ALTER TABLE source ADD COLUMN files TEXT`,
  `ALTER TABLE source ADD COLUMN query TEXT`,
  `ALTER TABLE source ADD COLUMN keyColumn TEXT`,
  `ALTER TABLE source ADD COLUMN readAt TEXT`,
  `ALTER TABLE source ADD COLUMN progress INTEGER NOT NULL DEFAULT 0`,
  // What the last reading changed, beside the reading before it.
  `ALTER TABLE source ADD COLUMN changes TEXT`,
  `UPDATE source SET files = json_array(json_object('fileId', fileId, 'fileName', fileName)), readAt = createdAt`,
  `CREATE TABLE connection (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, kind TEXT NOT NULL, host TEXT NOT NULL, port INTEGER NOT NULL, databaseName TEXT NOT NULL, user TEXT NOT NULL,
    sealed TEXT NOT NULL, tls INTEGER NOT NULL, fileId TEXT, createdAt TEXT NOT NULL)`,
  // The source's own value is kept as the cell that came in; the record holds the corrected one.
  `CREATE TABLE correction (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, sourceId INTEGER NOT NULL REFERENCES source(id) ON DELETE CASCADE, recordKey TEXT NOT NULL, row INTEGER NOT NULL, columnName TEXT NOT NULL,
    was TEXT NOT NULL, value TEXT NOT NULL, state TEXT NOT NULL, who TEXT NOT NULL, at TEXT NOT NULL, step TEXT NOT NULL)`,
  `CREATE INDEX correction_by_row ON correction (sourceId, row, state)`,
  `CREATE INDEX correction_by_step ON correction (sourceId, step)`,
  // A look that a person has accepted, for as long as the value stays what it was.
  `CREATE TABLE acceptance (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, mailingId INTEGER NOT NULL REFERENCES mailing(id) ON DELETE CASCADE, recordKey TEXT NOT NULL, code TEXT NOT NULL, columnName TEXT NOT NULL,
    field TEXT NOT NULL, value TEXT NOT NULL, reason TEXT NOT NULL, who TEXT NOT NULL, at TEXT NOT NULL)`,
  `CREATE INDEX acceptance_by_mailing ON acceptance (mailingId, recordKey)`,
  `ALTER TABLE finding ADD COLUMN checkName TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE finding ADD COLUMN columnName TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE finding ADD COLUMN mend TEXT`,
  `ALTER TABLE finding ADD COLUMN acceptanceId INTEGER`,
  // Records that running checks have seen.
  `ALTER TABLE mailing ADD COLUMN checkProgress INTEGER NOT NULL DEFAULT 0`,
  // Findings of the first version do not know their check; they are found anew.
  `UPDATE mailing SET checkedKey = NULL`,
];

/** Sources of every kind, corrections kept apart from them, looks that were accepted. */
export class RecordsFromAnywhere1764100000000 implements MigrationInterface {
  name = 'RecordsFromAnywhere1764100000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of steps) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['acceptance', 'correction', 'connection']) await runner.query(`DROP TABLE ${table}`);
    for (const column of ['files', 'query', 'keyColumn', 'readAt', 'progress', 'changes'])
      await runner.query(`ALTER TABLE source DROP COLUMN ${column}`);
    await runner.query('ALTER TABLE mailing DROP COLUMN checkProgress');
    for (const column of ['checkName', 'columnName', 'mend', 'acceptanceId'])
      await runner.query(`ALTER TABLE finding DROP COLUMN ${column}`);
  }
}
