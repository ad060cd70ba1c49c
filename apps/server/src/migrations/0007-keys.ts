import type { MailingPlan } from '@mailbag/contract';
import type { MigrationInterface, QueryRunner } from 'typeorm';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { sealedIfClear } from '../frozen/plan-passwords.js';

const STATEMENTS = [
  // Two templates may have the same file; one has each of its revisions once.
  `CREATE TABLE template_edition (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, templateId INTEGER NOT NULL REFERENCES template(id) ON DELETE CASCADE, number INTEGER NOT NULL,
    hash TEXT NOT NULL, fileName TEXT NOT NULL, size INTEGER NOT NULL, pages TEXT NOT NULL, fields TEXT NOT NULL, notes TEXT NOT NULL, createdAt TEXT NOT NULL,
    UNIQUE (templateId, number), UNIQUE (templateId, hash))`,
  `INSERT INTO template_edition SELECT id, templateId, number, hash, fileName, size, pages, fields, notes, createdAt FROM template_revision`,
  `DROP TABLE template_revision`,
  `ALTER TABLE template_edition RENAME TO template_revision`,
  `CREATE INDEX template_revision_by_hash ON template_revision (hash)`,

  // What a mailing reads, and what it fills: each template with the revision that it was mapped for.
  `ALTER TABLE mailing ADD COLUMN sourceId INTEGER REFERENCES source(id) ON DELETE SET NULL`,
  `UPDATE mailing SET sourceId = (SELECT id FROM source WHERE id = json_extract(mailing.plan, '$.sourceId'))`,
  `CREATE INDEX mailing_by_source ON mailing (sourceId)`,
  `CREATE TABLE mailing_template (mailingId INTEGER NOT NULL REFERENCES mailing(id) ON DELETE CASCADE, position INTEGER NOT NULL, templateId INTEGER NOT NULL REFERENCES template(id),
    revisionId INTEGER NOT NULL REFERENCES template_revision(id), PRIMARY KEY (mailingId, position)) WITHOUT ROWID`,
  `INSERT INTO mailing_template SELECT mailing.id, item.key, template.id, (SELECT id FROM template_revision WHERE templateId = template.id ORDER BY number DESC LIMIT 1)
   FROM mailing JOIN json_each(mailing.plan, '$.packet') AS item JOIN template ON template.id = item.value`,
  `CREATE INDEX mailing_template_by_template ON mailing_template (templateId)`,
  `UPDATE mailing SET plan = json_remove(plan, '$.sourceId', '$.packet')`,

  // A record has one copy of each template in a batch, and the copy knows whose it is.
  `CREATE UNIQUE INDEX copy_by_place ON copy (batchId, recordOrdinal, position)`,
  `ALTER TABLE copy ADD COLUMN recordKey TEXT NOT NULL DEFAULT ''`,

  // What reminders of a batch say, which may be written after it began; what is frozen stays as it is.
  `ALTER TABLE batch ADD COLUMN reminder TEXT`,
];

/** Keys in place of JSON, and passwords that earlier versions kept in clear sealed. */
export class Keys1764600000000 implements MigrationInterface {
  name = 'Keys1764600000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement);
    for (const [table, column] of [
      ['mailing', 'plan'],
      ['batch', 'frozen'],
    ] as const)
      for (const { id, text } of (await runner.query(`SELECT id, ${column} AS text FROM ${table}`)) as { id: number; text: string }[]) {
        const kept = JSON.parse(text) as FrozenMailing | MailingPlan;
        const sealed = 'plan' in kept ? { ...kept, plan: sealedIfClear(kept.plan) } : sealedIfClear(kept);
        const written = JSON.stringify(sealed);
        if (written !== JSON.stringify(kept)) await runner.query(`UPDATE ${table} SET ${column} = ? WHERE id = ?`, [written, id]);
      }
  }

  async down(): Promise<void> {
    await Promise.reject(new Error('Versions before keep this in another form. Restore the backup that was taken before.'));
  }
}
