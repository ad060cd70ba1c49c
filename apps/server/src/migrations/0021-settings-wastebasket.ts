import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A sender needs its server, so it comes before it. */
const TABLES = ['sender', 'mail_server', 'printer', 'register', 'connection', 'saved_view'];

/** What is set up can be put into the wastebasket too. Null: it is not in it. */
export class SettingsWastebasket1766000000000 implements MigrationInterface {
  name = 'SettingsWastebasket1766000000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      await runner.query(`ALTER TABLE ${table} ADD COLUMN deletedAt TEXT`);
      await runner.query(`ALTER TABLE ${table} ADD COLUMN deletedBy TEXT`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      // Before, what was deleted was gone.
      await runner.query(`DELETE FROM ${table} WHERE deletedAt IS NOT NULL`);
      await runner.query(`ALTER TABLE ${table} DROP COLUMN deletedBy`);
      await runner.query(`ALTER TABLE ${table} DROP COLUMN deletedAt`);
    }
  }
}
