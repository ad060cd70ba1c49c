import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS = [
  // Whether somebody is told by mail when a long batch of theirs ended.
  ['account', 'mailsBatches', 'INTEGER NOT NULL DEFAULT 0'],
  // The account that started it; null: another program did, or it is older than this.
  ['batch', 'startedBy', 'INTEGER'],
  // The state of which its starter was told by mail last; empty: none.
  ['batch', 'toldState', "TEXT NOT NULL DEFAULT ''"],
] as const;

/** Telling by mail that a long batch ended. */
export class BatchMails1765800000000 implements MigrationInterface {
  name = 'BatchMails1765800000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const [table, column, kind] of COLUMNS) await runner.query(`ALTER TABLE ${table} ADD COLUMN ${column} ${kind}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [table, column] of COLUMNS) await runner.query(`ALTER TABLE ${table} DROP COLUMN ${column}`);
  }
}
