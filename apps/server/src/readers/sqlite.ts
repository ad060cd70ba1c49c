import { fork } from 'node:child_process';
import { closeSync, openSync, readSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { MailbagError } from '@mailbag/core';
import type { DatabaseTable } from '@mailbag/contract';
import { databaseFailure } from './failures.js';
import { prepareQuery } from './query.js';
import type { DatabaseAccess, DatabaseReader } from './reader.js';
import { BLOCK, CONNECT_TIME } from './reader.js';
import type { SqliteNews, SqliteWork } from './sqlite-process.mjs';

/** Memory that reading a SQLite file may take beside the engine's own, MB. */
const MEMORY_MB = 256;
/**
 * What the process and its engine may take to be there, ms, on a machine that is busy with something else. It is no time of the question. With that of a
 * question it is less than what its thread gets (task-limits.ts): a thread that is ended cannot end the process any more.
 */
const START_TIME = 15_000;
/** The first bytes of every SQLite database (its file format, 1.3.1). */
const HEADER = 'SQLite format 3\0';
/** Place of the text encoding in the file's header, and its value for UTF-8 (SQLite, “Database File Format”, 1.3.13). */
const [ENCODING, UTF_8] = [56, 1];

const { resolve } = createRequire(import.meta.url);
const engine = pathToFileURL(resolve('@sqlite.org/sqlite-wasm'));
const script = (name: string): string => resolve(`#readers/${name}`);
/** Node's own name for its permissions changed when they became stable. */
const permission = process.allowedNodeEnvironmentFlags.has('--permission') ? '--permission' : '--experimental-permission';
/** All that the process may read by a path: its own code and the engine. It writes nowhere, starts nothing, and has no environment. */
export const sqliteRights: readonly string[] = [
  permission,
  '--disable-warning=ExperimentalWarning',
  '--disable-warning=SecurityWarning',
  `--max-old-space-size=${MEMORY_MB}`,
  ...['sqlite-process', 'sqlite-file', 'sqlite-rights'].map((name) => `--allow-fs-read=${script(name)}`),
  `--allow-fs-read=${dirname(fileURLToPath(engine))}/`,
];

/** @throws MailbagError database-not-a-file, database-text-encoding */
function openFile(path: string, host: string): number {
  let file: number;
  try {
    file = openSync(path, 'r');
  } catch (cause) {
    throw new MailbagError('database-not-a-file', { host }, { cause });
  }
  const head = Buffer.alloc(100);
  readSync(file, head, 0, head.length, 0);
  const isDatabase = head.toString('latin1', 0, HEADER.length) === HEADER;
  if (isDatabase && head.readUInt32BE(ENCODING) <= UTF_8) return file;
  closeSync(file);
  throw new MailbagError(isDatabase ? 'database-text-encoding' : 'database-not-a-file', { host });
}

/** @throws MailbagError database-not-a-file, database-text-encoding when a file is no database that can be read */
export const assertSqlite = (path: string, fileName: string): void => closeSync(openFile(path, fileName));

/**
 * Runs one question in a process of its own, which is ended when it takes too long: a thread cannot be ended while the engine works. The process
 * gets the file open and knows no path to it: a file from elsewhere and a query that a person wrote are both foreign.
 */
async function ask(path: string, work: SqliteWork, host: string, time: number, onNews: (news: SqliteNews) => boolean): Promise<void> {
  const file = openFile(path, host);
  const child = fork(script('sqlite-process'), [engine.href], {
    serialization: 'advanced',
    execArgv: [...sqliteRights],
    env: {},
    stdio: ['ignore', 'ignore', 'ignore', 'ipc', file],
  });
  closeSync(file);
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    await new Promise<void>((resolve, reject) => {
      const wait = (limit: number): void => {
        clearTimeout(timer);
        timer = setTimeout(() => reject(new MailbagError('database-too-slow', { host })), limit);
      };
      wait(START_TIME);
      child.on('message', (news: SqliteNews) => {
        if ('isReady' in news) wait(time);
        else if ('failed' in news) reject(databaseFailure(news.failed, host));
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
    await ask(access.path!, { query: null, rows: 0, block: BLOCK }, access.databaseName, CONNECT_TIME, (news) => {
      if ('tables' in news) tables = news.tables;
      return true;
    });
    return tables;
  },
  async read(sql, parameters, limits, onNames, onRows) {
    let isWhole = true;
    const query = prepareQuery(sql, parameters, () => '?');
    await ask(access.path!, { query, rows: limits.rows, block: BLOCK }, access.databaseName, limits.time, (news) => {
      if ('names' in news) onNames(news.names);
      if ('rows' in news) onRows(news.rows);
      if ('isWhole' in news) isWhole = news.isWhole;
      return 'isWhole' in news;
    });
    return isWhole;
  },
});
