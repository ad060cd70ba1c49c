import { fork } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { MailbagError } from '@mailbag/core';
import type { DatabaseTable } from '@mailbag/contract';
import { databaseFailure } from './failures.js';
import { prepareQuery } from './query.js';
import type { DatabaseAccess, DatabaseReader } from './reader.js';
import { BLOCK, CONNECT_TIME } from './reader.js';
import type { SqliteNews, SqliteWork } from './sqlite-process.js';

/** Memory that reading a SQLite file may take, MB. */
const MEMORY_MB = 256;

/** Runs one question in a process of its own, which is ended when it takes too long: a thread cannot be ended while the driver works. */
async function ask(work: SqliteWork, host: string, time: number, onNews: (news: SqliteNews) => boolean): Promise<void> {
  if (!existsSync(work.path)) throw new MailbagError('database-not-a-file', { host });
  const child = fork(fileURLToPath(new URL('./sqlite-process.js', import.meta.url)), {
    serialization: 'advanced',
    execArgv: [`--max-old-space-size=${MEMORY_MB}`],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    await new Promise<void>((resolve, reject) => {
      timer = setTimeout(() => reject(new MailbagError('database-too-slow', { host })), time);
      child.on('message', (news: SqliteNews) => {
        if ('failed' in news) reject(databaseFailure(news.failed, host));
        else if (onNews(news)) resolve();
      });
      child.once('error', (error) => reject(databaseFailure(error, host)));
      child.once('exit', () => reject(new MailbagError('database-gone', { host })));
      child.send(work);
    });
  } finally {
    clearTimeout(timer);
    child.kill('SIGKILL');
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
