import { randomBytes } from 'node:crypto';
import { newReturnToken } from '@mailbag/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What two earlier migrations made only in folders that were upgraded after they had been edited. */
const missing = [
  `CREATE INDEX IF NOT EXISTS copy_trouble_counted ON copy (trouble, state, mailingId, batchId, templateId, since) WHERE trouble IS NOT NULL`,
  `CREATE VIRTUAL TABLE IF NOT EXISTS copy_terms USING fts5vocab(copy_words, instance)`,
];

/** Brings folders of earlier versions to where new ones are, and settles what was under way in them. */
export class OlderFolders1764400000000 implements MigrationInterface {
  name = 'OlderFolders1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of missing) await runner.query(sql);
    const progress = (await runner.query("SELECT 1 FROM pragma_table_info('mailing') WHERE name = 'checkProgress'")) as unknown[];
    if (progress.length === 0) await runner.query('ALTER TABLE mailing ADD COLUMN checkProgress INTEGER NOT NULL DEFAULT 0');
    // What a message was, so that one composed again can be told to be the same.
    await runner.query('ALTER TABLE delivery ADD COLUMN sentDigest TEXT');
    // Bounces of what was queued before there were tokens find their copies too.
    const without = (await runner.query("SELECT id FROM delivery WHERE token IS NULL OR token = ''")) as { id: number }[];
    for (const { id } of without) await runner.query('UPDATE delivery SET token = ? WHERE id = ?', [newReturnToken(randomBytes(20)), id]);
    // Versions without claims did not write down when they began to hand over: what was under way then may have arrived, so a person settles it.
    await runner.query("UPDATE delivery SET handedAt = updatedAt WHERE state = 'sending' AND claim IS NULL AND handedAt IS NULL");
  }

  down(): Promise<void> {
    return Promise.reject(new Error('There is no way back from here: restore the backup that was taken before the upgrade.'));
  }
}
