import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = ['template', 'source', 'mailing', 'intake'];

/** When things were put into the wastebasket, and by whom. Null: they are not in it. */
export class Wastebasket1765700000000 implements MigrationInterface {
  name = 'Wastebasket1765700000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      await runner.query(`ALTER TABLE ${table} ADD COLUMN deletedAt TEXT`);
      await runner.query(`ALTER TABLE ${table} ADD COLUMN deletedBy TEXT`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      await runner.query(`ALTER TABLE ${table} DROP COLUMN deletedBy`);
      await runner.query(`ALTER TABLE ${table} DROP COLUMN deletedAt`);
    }
  }
}
