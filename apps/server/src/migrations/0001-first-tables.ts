import type { MigrationInterface, QueryRunner } from 'typeorm';

const tables = [
  `CREATE TABLE account (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, email TEXT NOT NULL UNIQUE, passwordHash TEXT NOT NULL, createdAt TEXT NOT NULL)`,
  `CREATE TABLE session (tokenHash TEXT PRIMARY KEY NOT NULL, accountId INTEGER NOT NULL REFERENCES account(id) ON DELETE CASCADE, createdAt TEXT NOT NULL, expiresAt TEXT NOT NULL)`,
  `CREATE TABLE setting (name TEXT PRIMARY KEY NOT NULL, value TEXT NOT NULL)`,
  `CREATE TABLE template (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, createdAt TEXT NOT NULL)`,
  `CREATE TABLE template_revision (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, templateId INTEGER NOT NULL REFERENCES template(id) ON DELETE CASCADE, number INTEGER NOT NULL,
    hash TEXT NOT NULL UNIQUE, fileName TEXT NOT NULL, size INTEGER NOT NULL, pages TEXT NOT NULL, fields TEXT NOT NULL, notes TEXT NOT NULL, createdAt TEXT NOT NULL)`,
  `CREATE TABLE source (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, fileName TEXT NOT NULL, fileId TEXT NOT NULL, state TEXT NOT NULL, count INTEGER NOT NULL,
    columns TEXT NOT NULL, notes TEXT NOT NULL, reading TEXT NOT NULL, error TEXT, createdAt TEXT NOT NULL)`,
  `CREATE TABLE source_record (sourceId INTEGER NOT NULL REFERENCES source(id) ON DELETE CASCADE, ordinal INTEGER NOT NULL, row INTEGER NOT NULL, cells TEXT NOT NULL, PRIMARY KEY (sourceId, ordinal)) WITHOUT ROWID`,
  `CREATE TABLE mailing (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, plan TEXT NOT NULL, version INTEGER NOT NULL, checkedKey TEXT, checkError TEXT, createdAt TEXT NOT NULL, updatedAt TEXT NOT NULL)`,
  `CREATE TABLE finding (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, mailingId INTEGER NOT NULL REFERENCES mailing(id) ON DELETE CASCADE, ordinal INTEGER NOT NULL, row INTEGER NOT NULL, code TEXT NOT NULL, severity TEXT NOT NULL, body TEXT NOT NULL)`,
  `CREATE INDEX finding_by_code ON finding (mailingId, code, ordinal)`,
  `CREATE INDEX finding_by_record ON finding (mailingId, ordinal)`,
  `CREATE TABLE batch (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, number INTEGER NOT NULL UNIQUE, mailingId INTEGER NOT NULL, mailingName TEXT NOT NULL, state TEXT NOT NULL, resumeTo TEXT,
    frozen TEXT NOT NULL, characters TEXT NOT NULL, records INTEGER NOT NULL, plannedThrough INTEGER NOT NULL, copies INTEGER NOT NULL, mailed INTEGER NOT NULL, error TEXT, startedAt TEXT NOT NULL, finishedAt TEXT)`,
  `CREATE TABLE batch_record (batchId INTEGER NOT NULL REFERENCES batch(id) ON DELETE CASCADE, ordinal INTEGER NOT NULL, row INTEGER NOT NULL, cells TEXT NOT NULL, PRIMARY KEY (batchId, ordinal)) WITHOUT ROWID`,
  `CREATE TABLE delivery (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, batchId INTEGER NOT NULL, recordOrdinal INTEGER NOT NULL, address TEXT NOT NULL, messageId TEXT NOT NULL UNIQUE, state TEXT NOT NULL,
    held INTEGER NOT NULL, attempts INTEGER NOT NULL, nextTryAt TEXT NOT NULL, said TEXT, createdAt TEXT NOT NULL, updatedAt TEXT NOT NULL)`,
  `CREATE INDEX delivery_due ON delivery (state, held, nextTryAt)`,
  `CREATE INDEX delivery_by_batch ON delivery (batchId, state)`,
  `CREATE TABLE copy (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, code TEXT NOT NULL UNIQUE, batchId INTEGER NOT NULL, batchNumber INTEGER NOT NULL, mailingId INTEGER NOT NULL, mailingName TEXT NOT NULL,
    recordOrdinal INTEGER NOT NULL, row INTEGER NOT NULL, position INTEGER NOT NULL, templateId INTEGER NOT NULL, templateName TEXT NOT NULL, pages INTEGER NOT NULL, recipient TEXT NOT NULL, address TEXT NOT NULL,
    path TEXT NOT NULL, pathKey TEXT NOT NULL UNIQUE, state TEXT NOT NULL, since TEXT NOT NULL, size INTEGER NOT NULL, sha256 TEXT, deliveryId INTEGER)`,
  `CREATE INDEX copy_by_batch ON copy (batchId, state, recordOrdinal)`,
  `CREATE INDEX copy_by_state ON copy (state, id)`,
  `CREATE INDEX copy_by_mailing ON copy (mailingId, state)`,
  `CREATE INDEX copy_by_delivery ON copy (deliveryId)`,
  `CREATE TABLE copy_event (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, copyId INTEGER NOT NULL REFERENCES copy(id) ON DELETE CASCADE, at TEXT NOT NULL, who TEXT NOT NULL, event TEXT NOT NULL, state TEXT NOT NULL, said TEXT)`,
  `CREATE INDEX copy_event_by_copy ON copy_event (copyId, id)`,
  `CREATE INDEX copy_event_by_time ON copy_event (at, event)`,
  `CREATE VIRTUAL TABLE copy_search USING fts5(text, tokenize = "unicode61 remove_diacritics 2")`,
];

/** The tables of the first version. */
export class FirstTables1764000000000 implements MigrationInterface {
  name = 'FirstTables1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of tables) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const sql of [...tables].reverse()) {
      const name = /^CREATE (?:VIRTUAL )?TABLE (\w+)/.exec(sql)?.[1];
      if (name) await runner.query(`DROP TABLE ${name}`);
    }
  }
}
