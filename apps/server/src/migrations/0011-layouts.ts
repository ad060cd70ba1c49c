import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS = 'id, templateId, number, hash, fileName, size, pages, fields, notes, createdAt';

const STATEMENTS = [
  // A template can have the same file in several revisions: gone back to, or with other stamps on it. What refers to the table stands aside while it is made anew.
  'CREATE TABLE packet_aside AS SELECT mailingId, position, templateId, revisionId FROM mailing_template',
  'DELETE FROM mailing_template',
  `CREATE TABLE template_edition (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, templateId INTEGER NOT NULL REFERENCES template(id) ON DELETE CASCADE, number INTEGER NOT NULL,
    hash TEXT NOT NULL, fileName TEXT NOT NULL, size INTEGER NOT NULL, pages TEXT NOT NULL, fields TEXT NOT NULL, notes TEXT NOT NULL, createdAt TEXT NOT NULL,
    baseId INTEGER, layout TEXT, answers TEXT, UNIQUE (templateId, number))`,
  `INSERT INTO template_edition (${COLUMNS}) SELECT ${COLUMNS} FROM template_revision`,
  'DROP TABLE template_revision',
  'ALTER TABLE template_edition RENAME TO template_revision',
  'CREATE INDEX template_revision_by_hash ON template_revision (hash)',
  'INSERT INTO mailing_template (mailingId, position, templateId, revisionId) SELECT mailingId, position, templateId, revisionId FROM packet_aside',
  'DROP TABLE packet_aside',

  `CREATE TABLE template_layout (templateId INTEGER PRIMARY KEY REFERENCES template(id) ON DELETE CASCADE,
    baseId INTEGER NOT NULL REFERENCES template_revision(id), version INTEGER NOT NULL, content TEXT NOT NULL, isInUse INTEGER NOT NULL, updatedAt TEXT NOT NULL)`,
  'ALTER TABLE template ADD COLUMN archivedAt TEXT',
];

/**
 * Templates have a layout that is being drawn, or in use as it is; a revision that was written from one keeps it, what it stamps on copies, and the revision
 * that lies beneath. Each revision keeps which of its fields are one answer; null: nobody has asked yet. Templates can be put away.
 */
export class Layouts1765000000000 implements MigrationInterface {
  name = 'Layouts1765000000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE template DROP COLUMN archivedAt');
    await runner.query('DROP TABLE template_layout');
    for (const column of ['answers', 'layout', 'baseId']) await runner.query(`ALTER TABLE template_revision DROP COLUMN ${column}`);
  }
}
