import type { MigrationInterface, QueryRunner } from 'typeorm';

const STATEMENTS = [
  // The copy whose personal link was answered, what that changes in its record, what the record says besides, and what became of the changes.
  'ALTER TABLE submission ADD COLUMN copyCode TEXT',
  "ALTER TABLE submission ADD COLUMN changes TEXT NOT NULL DEFAULT '[]'",
  "ALTER TABLE submission ADD COLUMN known TEXT NOT NULL DEFAULT '{}'",
  "ALTER TABLE submission ADD COLUMN settled TEXT NOT NULL DEFAULT 'none'",
  // The earlier submission in whose place this one came.
  'ALTER TABLE submission ADD COLUMN mends INTEGER',
  // The e-mail address of whoever answered, in small letters; empty: none was asked for.
  "ALTER TABLE submission ADD COLUMN address TEXT NOT NULL DEFAULT ''",
  // What became of the office's notice of it.
  "ALTER TABLE submission ADD COLUMN notice TEXT NOT NULL DEFAULT 'none'",
  "CREATE INDEX submission_to_tell ON submission (intakeId, id) WHERE notice = 'waiting'",
  "CREATE INDEX submission_being_told ON submission (id) WHERE notice = 'sending'",
  "CREATE INDEX submission_by_address ON submission (intakeId, address) WHERE address <> ''",
  'CREATE INDEX submission_by_mended ON submission (mends) WHERE mends IS NOT NULL',
  "CREATE INDEX submission_to_settle ON submission (intakeId) WHERE settled = 'open'",
];

/** Answers to personal links, and answers that were mended. */
export class PersonalLinks1765500000000 implements MigrationInterface {
  name = 'PersonalLinks1765500000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const index of [
      'submission_to_settle',
      'submission_by_mended',
      'submission_by_address',
      'submission_to_tell',
      'submission_being_told',
    ])
      await runner.query(`DROP INDEX ${index}`);
    for (const column of ['notice', 'address', 'mends', 'settled', 'known', 'changes', 'copyCode'])
      await runner.query(`ALTER TABLE submission DROP COLUMN ${column}`);
  }
}
