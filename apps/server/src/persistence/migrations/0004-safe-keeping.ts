import type { MigrationInterface, QueryRunner } from 'typeorm';

const steps = [
  // How often a message from outside was tried, written down before it is.
  `CREATE TABLE incoming_try (digest TEXT PRIMARY KEY NOT NULL, at TEXT NOT NULL, tries INTEGER NOT NULL) WITHOUT ROWID`,
  // Who has claimed a delivery, and the time before which it may not leave, whatever the clock does.
  `ALTER TABLE delivery ADD COLUMN claim TEXT`,
  `ALTER TABLE delivery ADD COLUMN startAt TEXT`,
  `UPDATE delivery SET startAt = nextTryAt WHERE state = 'queued' AND attempts = 0 AND nextTryAt > createdAt`,
  // Which folder this database belongs to, how many groups of messages were claimed, why nothing is sent by itself, what the key is tried on.
  `CREATE TABLE folder_state (id INTEGER PRIMARY KEY CHECK (id = 1), folder TEXT NOT NULL, claims INTEGER NOT NULL, held TEXT, keyCheck TEXT)`,
  // Why a report is left to a person, what it says, and what the person decided.
  `ALTER TABLE incoming_report ADD COLUMN doubt TEXT`,
  `ALTER TABLE incoming_report ADD COLUMN facts TEXT`,
  `ALTER TABLE incoming_report ADD COLUMN settled TEXT`,
];

/** What a safe server has to remember. */
export class SafeKeeping1764300000000 implements MigrationInterface {
  name = 'SafeKeeping1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of steps) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['doubt', 'facts', 'settled']) await runner.query(`ALTER TABLE incoming_report DROP COLUMN ${column}`);
    for (const column of ['claim', 'startAt']) await runner.query(`ALTER TABLE delivery DROP COLUMN ${column}`);
    await runner.query('DROP TABLE folder_state');
    await runner.query('DROP TABLE incoming_try');
  }
}
