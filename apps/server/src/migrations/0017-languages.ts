import type { MigrationInterface, QueryRunner } from 'typeorm';

/** In which language each person is spoken to. */
export class Languages1765600000000 implements MigrationInterface {
  name = 'Languages1765600000000';

  async up(runner: QueryRunner): Promise<void> {
    // ISO 639-1; empty: that of the browser.
    await runner.query("ALTER TABLE account ADD COLUMN language TEXT NOT NULL DEFAULT ''");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE account DROP COLUMN language');
  }
}
