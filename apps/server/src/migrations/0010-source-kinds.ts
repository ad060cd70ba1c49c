import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A source is of a kind, which says where its records come from. */
export class SourceKinds1764900000000 implements MigrationInterface {
  name = 'SourceKinds1764900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE source ADD COLUMN kind TEXT NOT NULL DEFAULT 'file'");
    await runner.query("UPDATE source SET kind = 'database' WHERE query IS NOT NULL AND query <> 'null'");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE source DROP COLUMN kind');
  }
}
