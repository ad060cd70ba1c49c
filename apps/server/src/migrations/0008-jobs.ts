import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Everything long is a job: what runs, what waits for its time, what has failed. Times in milliseconds since 1970. */
export class Jobs1764700000000 implements MigrationInterface {
  name = 'Jobs1764700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE job (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, kind TEXT NOT NULL, key TEXT NOT NULL, subject TEXT NOT NULL, state TEXT NOT NULL, priority INTEGER NOT NULL,
        payload TEXT NOT NULL, who TEXT NOT NULL, accountId INTEGER, everyMs INTEGER, dueAt INTEGER NOT NULL, attempts INTEGER NOT NULL, again INTEGER NOT NULL, done INTEGER NOT NULL, total INTEGER NOT NULL,
        lease TEXT, leaseUntil INTEGER, error TEXT, startedAt INTEGER, finishedAt INTEGER, createdAt INTEGER NOT NULL, UNIQUE (kind, key))`,
    );
    await runner.query('CREATE INDEX job_due ON job (state, dueAt)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE job');
  }
}
