import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Every act is kept with who did it: the kind and number of the principal, beside the name that it had. Of older ones it is known where one account has that name. */
export class Principals1764800000000 implements MigrationInterface {
  name = 'Principals1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const table of ['copy_event', 'correction', 'acceptance', 'print_run', 'invitation']) {
      await runner.query(`ALTER TABLE ${table} ADD COLUMN principal TEXT NOT NULL DEFAULT 'mailbag'`);
      await runner.query(
        `UPDATE ${table} SET principal = CASE who WHEN 'Mailbag' THEN 'mailbag' WHEN 'Incoming mail' THEN 'mail'
          ELSE COALESCE((SELECT 'person:' || MIN(id) FROM account WHERE name = who HAVING COUNT(*) = 1), 'person') END WHERE who <> 'Mailbag'`,
      );
    }
    for (const table of ['history', 'job']) {
      await runner.query(`ALTER TABLE ${table} ADD COLUMN principal TEXT NOT NULL DEFAULT 'mailbag'`);
      await runner.query(`UPDATE ${table} SET principal = 'person:' || accountId WHERE accountId IS NOT NULL`);
      await runner.query(`ALTER TABLE ${table} DROP COLUMN accountId`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['history', 'job']) {
      await runner.query(`ALTER TABLE ${table} ADD COLUMN accountId INTEGER`);
      await runner.query(`UPDATE ${table} SET accountId = CAST(SUBSTR(principal, 8) AS INTEGER) WHERE principal LIKE 'person:%'`);
    }
    for (const table of ['copy_event', 'correction', 'acceptance', 'print_run', 'invitation', 'history', 'job'])
      await runner.query(`ALTER TABLE ${table} DROP COLUMN principal`);
  }
}
