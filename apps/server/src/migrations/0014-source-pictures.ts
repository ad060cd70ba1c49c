import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pictures come with a source, for columns that name them: their list is a file, whose digest stands with the source. */
export class SourcePictures1765300000000 implements MigrationInterface {
  name = 'SourcePictures1765300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE source ADD COLUMN pictures TEXT');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE source DROP COLUMN pictures');
  }
}
