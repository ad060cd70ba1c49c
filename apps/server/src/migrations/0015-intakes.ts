import type { MigrationInterface, QueryRunner } from 'typeorm';

const STATEMENTS = [
  `CREATE TABLE intake (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, mailingId INTEGER NOT NULL UNIQUE REFERENCES mailing(id), sourceId INTEGER NOT NULL UNIQUE REFERENCES source(id),
    plan TEXT NOT NULL, version INTEGER NOT NULL, createdAt TEXT NOT NULL, updatedAt TEXT NOT NULL)`,
  // The word that was given last is the one that is told; the others lead there too.
  'CREATE TABLE intake_word (word TEXT PRIMARY KEY NOT NULL, intakeId INTEGER NOT NULL REFERENCES intake(id) ON DELETE CASCADE, since TEXT NOT NULL)',
  'CREATE INDEX intake_word_by_intake ON intake_word (intakeId, since)',
  `CREATE TABLE intake_edition (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, intakeId INTEGER NOT NULL REFERENCES intake(id) ON DELETE CASCADE, plan TEXT NOT NULL, frozen TEXT NOT NULL,
    version INTEGER NOT NULL, publishedAt TEXT NOT NULL, who TEXT NOT NULL)`,
  'CREATE INDEX intake_edition_by_intake ON intake_edition (intakeId, id)',
  `CREATE TABLE submission (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, intakeId INTEGER NOT NULL REFERENCES intake(id) ON DELETE CASCADE, editionId INTEGER NOT NULL REFERENCES intake_edition(id),
    keyHash TEXT NOT NULL, number TEXT NOT NULL, language TEXT NOT NULL, receivedAt TEXT NOT NULL, answers TEXT NOT NULL, pictures TEXT NOT NULL, UNIQUE (intakeId, keyHash))`,
  'CREATE UNIQUE INDEX submission_by_key ON submission (keyHash)',
  'CREATE INDEX submission_by_intake ON submission (intakeId, id)',
  // What somebody typed and goes on with by a link that was mailed to them.
  `CREATE TABLE kept_visit (tokenHash TEXT PRIMARY KEY NOT NULL, intakeId INTEGER NOT NULL REFERENCES intake(id) ON DELETE CASCADE, content TEXT NOT NULL, until TEXT NOT NULL)`,
  'CREATE INDEX kept_visit_by_end ON kept_visit (until)',
];

/** Intakes, the words by which they are reached, what was published of them, and what people answered. */
export class Intakes1765400000000 implements MigrationInterface {
  name = 'Intakes1765400000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['kept_visit', 'submission', 'intake_edition', 'intake_word', 'intake']) await runner.query(`DROP TABLE ${table}`);
  }
}
