import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Templates have a layout that is being drawn, or in use as it is; a revision that was written from one keeps it, what it stamps on copies, and the revision that lies beneath.
 * Each revision keeps which of its fields are one answer; null: nobody has asked yet. Templates can be put away.
 */
export class Layouts1765000000000 implements MigrationInterface {
  name = 'Layouts1765000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE template_layout (templateId INTEGER PRIMARY KEY REFERENCES template(id) ON DELETE CASCADE,
        baseId INTEGER NOT NULL REFERENCES template_revision(id), version INTEGER NOT NULL, content TEXT NOT NULL, isInUse INTEGER NOT NULL, updatedAt TEXT NOT NULL)`,
    );
    await runner.query('ALTER TABLE template_revision ADD COLUMN baseId INTEGER');
    await runner.query('ALTER TABLE template_revision ADD COLUMN layout TEXT');
    await runner.query('ALTER TABLE template_revision ADD COLUMN answers TEXT');
    await runner.query('ALTER TABLE template ADD COLUMN archivedAt TEXT');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE template DROP COLUMN archivedAt');
    for (const column of ['answers', 'layout', 'baseId']) await runner.query(`ALTER TABLE template_revision DROP COLUMN ${column}`);
    await runner.query('DROP TABLE template_layout');
  }
}
