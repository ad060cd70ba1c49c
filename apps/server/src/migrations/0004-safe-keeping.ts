import type { Cell } from '@mailbag/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { columnsInCopies, keyDigests, valueDigests } from '../frozen/record-digest.js';

const steps = [
  // How often a message from outside was tried, written down before it is.
  `CREATE TABLE incoming_try (digest TEXT PRIMARY KEY NOT NULL, at TEXT NOT NULL, tries INTEGER NOT NULL) WITHOUT ROWID`,
  // Who has claimed a delivery, and the time before which it may not leave, whatever the clock does.
  `ALTER TABLE delivery ADD COLUMN claim TEXT`,
  `ALTER TABLE delivery ADD COLUMN startAt TEXT`,
  `UPDATE delivery SET startAt = nextTryAt WHERE state = 'queued' AND attempts = 0 AND nextTryAt > createdAt`,
  // Which folder this database belongs to, how many groups of messages were claimed, why nothing is sent by itself, what the key is tried on.
  // The salt keeps digests of record keys from saying anything outside of this database.
  `CREATE TABLE folder_state (id INTEGER PRIMARY KEY CHECK (id = 1), folder TEXT NOT NULL, claims INTEGER NOT NULL, held TEXT, keyCheck TEXT, salt TEXT NOT NULL)`,
  // Why a report is left to a person, what it says, and what the person decided.
  `ALTER TABLE incoming_report ADD COLUMN doubt TEXT`,
  `ALTER TABLE incoming_report ADD COLUMN facts TEXT`,
  `ALTER TABLE incoming_report ADD COLUMN settled TEXT`,
  // The wish that began a batch, the day of its start, and who it was for: digests of keys and values, which outlive the records themselves.
  `ALTER TABLE batch ADD COLUMN startKey TEXT`,
  `ALTER TABLE batch ADD COLUMN usedColumns TEXT`,
  `ALTER TABLE batch ADD COLUMN today TEXT NOT NULL DEFAULT ''`,
  `UPDATE batch SET today = substr(startedAt, 1, 10)`,
  `CREATE UNIQUE INDEX batch_start_key ON batch (startKey)`,
  `CREATE INDEX batch_by_mailing ON batch (mailingId)`,
  `ALTER TABLE batch_record ADD COLUMN keyDigest TEXT`,
  `ALTER TABLE batch_record ADD COLUMN valuesDigest TEXT`,
  // Records stand under the number of their reading, so that a new reading takes the place of the one before by one number, and how often it was tried.
  `CREATE TABLE source_reading (id INTEGER PRIMARY KEY AUTOINCREMENT, sourceId INTEGER NOT NULL)`,
  `INSERT INTO source_reading (id, sourceId) SELECT id, id FROM source`,
  `CREATE TABLE reading_record (readingId INTEGER NOT NULL, ordinal INTEGER NOT NULL, row INTEGER NOT NULL, cells TEXT NOT NULL, PRIMARY KEY (readingId, ordinal)) WITHOUT ROWID`,
  `INSERT INTO reading_record (readingId, ordinal, row, cells) SELECT sourceId, ordinal, row, cells FROM source_record WHERE sourceId > 0 ORDER BY sourceId, ordinal`,
  `DROP TABLE source_record`,
  `ALTER TABLE reading_record RENAME TO source_record`,
  `ALTER TABLE source ADD COLUMN readingId INTEGER`,
  `UPDATE source SET readingId = id`,
  `ALTER TABLE source ADD COLUMN attempts INTEGER NOT NULL DEFAULT 0`,
  `CREATE TABLE had_copy (mailingId INTEGER NOT NULL, keyDigest TEXT NOT NULL, PRIMARY KEY (mailingId, keyDigest)) WITHOUT ROWID`,
];

/** Records whose digests are worked out at a time. */
const BLOCK = 1000;

/** Who the batches of earlier versions were for. */
async function digestRecords(runner: QueryRunner, salt: string): Promise<void> {
  const batches = (await runner.query('SELECT id, frozen FROM batch')) as { id: number; frozen: string }[];
  for (const { id, frozen } of batches) {
    const mailing = JSON.parse(frozen) as FrozenMailing;
    const used = columnsInCopies(mailing);
    const keyOf = keyDigests(salt, mailing.columns, mailing.plan.keyColumn ?? null);
    const valuesOf = valueDigests(salt, mailing.columns, used);
    await runner.query('UPDATE batch SET usedColumns = ? WHERE id = ?', [JSON.stringify(used), id]);
    for (let from = 0; ; from += BLOCK) {
      const rows = (await runner.query(
        "SELECT ordinal, row, cells FROM batch_record WHERE batchId = ? AND ordinal >= ? AND ordinal < ? AND cells <> '[]' ORDER BY ordinal",
        [id, from, from + BLOCK],
      )) as { ordinal: number; row: number; cells: string }[];
      for (const { ordinal, row, cells } of rows) {
        const record = { row, cells: JSON.parse(cells) as Cell[] };
        await runner.query('UPDATE batch_record SET keyDigest = ?, valuesDigest = ? WHERE batchId = ? AND ordinal = ?', [
          keyOf(record),
          valuesOf(record),
          id,
          ordinal,
        ]);
      }
      const [more] = (await runner.query('SELECT 1 FROM batch_record WHERE batchId = ? AND ordinal >= ? LIMIT 1', [
        id,
        from + BLOCK,
      ])) as unknown[];
      if (!more) break;
    }
  }
}

/** What a safe server has to remember. */
export class SafeKeeping1764300000000 implements MigrationInterface {
  name = 'SafeKeeping1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of steps) await runner.query(sql);
    await runner.query("INSERT INTO folder_state (id, folder, claims, salt) VALUES (1, '', 0, lower(hex(randomblob(16))))");
    const [{ salt }] = (await runner.query('SELECT salt FROM folder_state')) as [{ salt: string }];
    await digestRecords(runner, salt);
    // One copy for a record and template; a folder in which that does not hold can be used all the same.
    const [double] = (await runner.query(
      'SELECT 1 FROM copy GROUP BY batchId, recordOrdinal, position HAVING COUNT(*) > 1 LIMIT 1',
    )) as unknown[];
    await runner.query(`CREATE ${double ? '' : 'UNIQUE '}INDEX copy_by_record ON copy (batchId, recordOrdinal, position)`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('There is no way back from here: restore the backup that was taken before the upgrade.'));
  }
}
