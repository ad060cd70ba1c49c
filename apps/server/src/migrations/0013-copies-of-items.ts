import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A record may get several copies of a template, one for so many items of it; each knows which of them it is. */
export class CopiesOfItems1765200000000 implements MigrationInterface {
  name = 'CopiesOfItems1765200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE copy ADD COLUMN part INTEGER NOT NULL DEFAULT 0');
    // Two indexes said the same: a copy of each template for a record.
    for (const name of ['copy_by_record', 'copy_by_place']) await runner.query(`DROP INDEX IF EXISTS ${name}`);
    await runner.query('CREATE UNIQUE INDEX copy_by_place ON copy (batchId, recordOrdinal, position, part)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX copy_by_place');
    await runner.query('CREATE UNIQUE INDEX copy_by_place ON copy (batchId, recordOrdinal, position)');
    await runner.query('CREATE INDEX copy_by_record ON copy (batchId, recordOrdinal, position)');
    await runner.query('ALTER TABLE copy DROP COLUMN part');
  }
}
