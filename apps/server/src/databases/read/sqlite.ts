import { existsSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { MailbagError } from '@mailbag/core';
import type { DatabaseTable } from '@mailbag/contract';
import { databaseFailure } from './failures.js';
import { prepareQuery } from './query.js';
import type { DatabaseAccess, DatabaseReader } from './reader.js';
import { BLOCK, CONNECT_TIME } from './reader.js';
import type { SqliteNews, SqliteWork } from './sqlite-thread.js';

/** Runs one question in a thread of its own, which is ended when it takes too long: the driver answers only when it is done. */
async function ask(work: SqliteWork, host: string, time: number, onNews: (news: SqliteNews) => boolean): Promise<void> {
  if (!existsSync(work.path)) throw new MailbagError('database-not-a-file', { host });
  const worker = new Worker(new URL('./sqlite-thread.js', import.meta.url), {
    workerData: work,
    resourceLimits: { maxOldGenerationSizeMb: 256 },
  });
  const ended = new AbortController();
  try {
    await new Promise<void>((resolve, reject) => {
      const timer = setTimeout(() => reject(new MailbagError('database-too-slow', { host })), time);
      ended.signal.addEventListener('abort', () => clearTimeout(timer));
      worker.on('message', (news: SqliteNews) => {
        if ('failed' in news) reject(databaseFailure(news.failed, host));
        else if (onNews(news)) resolve();
      });
      worker.once('error', (error) => reject(databaseFailure(error, host)));
      worker.once('exit', () => reject(new MailbagError('database-gone', { host })));
    });
  } finally {
    ended.abort();
    await worker.terminate();
  }
}

/** A SQLite file, opened for reading only. */
export const sqliteReader = (access: DatabaseAccess): DatabaseReader => ({
  async tables() {
    let tables: DatabaseTable[] = [];
    await ask({ path: access.path!, query: null, rows: 0, block: BLOCK }, access.databaseName, CONNECT_TIME, (news) => {
      if ('tables' in news) tables = news.tables;
      return true;
    });
    return tables;
  },
  async read(sql, parameters, limits, onNames, onRows) {
    let isWhole = true;
    const query = prepareQuery(sql, parameters, () => '?');
    await ask({ path: access.path!, query, rows: limits.rows, block: BLOCK }, access.databaseName, limits.time, (news) => {
      if ('names' in news) onNames(news.names);
      if ('rows' in news) onRows(news.rows);
      if ('isWhole' in news) isWhole = news.isWhole;
      return 'isWhole' in news;
    });
    return isWhole;
  },
});
