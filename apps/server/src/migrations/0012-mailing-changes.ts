import type { MigrationInterface, QueryRunner } from 'typeorm';

const STATEMENTS = [
  `CREATE TABLE mailing_change (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, mailingId INTEGER NOT NULL REFERENCES mailing(id) ON DELETE CASCADE, at TEXT NOT NULL, until TEXT NOT NULL,
    principal TEXT NOT NULL, who TEXT NOT NULL, parts TEXT NOT NULL, plan TEXT NOT NULL, sourceId INTEGER, packet TEXT NOT NULL)`,
  'CREATE INDEX mailing_change_by_mailing ON mailing_change (mailingId, id)',
  'ALTER TABLE mailing ADD COLUMN archivedAt TEXT',
  'CREATE INDEX copy_by_record_key ON copy (mailingId, recordKey)',
];

/** Mailings keep what they were before each change, so that there is a way back. They can be put away. The copies of a record are found among millions. */
export class MailingChanges1765100000000 implements MigrationInterface {
  name = 'MailingChanges1765100000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX copy_by_record_key');
    await runner.query('ALTER TABLE mailing DROP COLUMN archivedAt');
    await runner.query('DROP TABLE mailing_change');
  }
}
