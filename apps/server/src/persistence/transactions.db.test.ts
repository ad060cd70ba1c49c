import { existsSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import Database from 'libsql';
import type { DataSource } from 'typeorm';
import { ownDatabase } from '../../../../testing/own-database.js';
import { GroupedWrites } from './grouped-writes.js';
import { rows, run } from './sql.js';
import type { Sql } from './sql.js';
import { TransactionQueue } from './transaction-queue.js';

let database: DataSource;
let close: () => Promise<void>;
let complaints: string[];
let queue: TransactionQueue;
beforeEach(async () => {
  ({ database, close } = await ownDatabase());
  complaints = [];
  queue = new TransactionQueue(database, (words) => complaints.push(words));
  await database.query('CREATE TABLE note (id INTEGER PRIMARY KEY, text TEXT UNIQUE)');
});
afterEach(() => close());

const add = (sql: Sql, text: string): Promise<void> => run(sql, 'INSERT INTO note (text) VALUES (?)', [text]);
const rowsNow = async (): Promise<string[]> =>
  (await rows<{ text: string }>(queue, 'SELECT text FROM note ORDER BY id', [])).map(({ text }) => text);
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

test('changes are made one after the other, each whole, though they are asked for at once', async () => {
  const order: string[] = [];
  const change = (name: string) =>
    queue.run(async (sql) => {
      order.push(`${name} begins`);
      await add(sql, `${name} 1`);
      await pause(3);
      await add(sql, `${name} 2`);
      order.push(`${name} ends`);
    });
  await Promise.all(['a', 'b', 'c'].map(change));
  expect(order).toEqual(['a begins', 'a ends', 'b begins', 'b ends', 'c begins', 'c ends']);
  expect(await rowsNow()).toEqual(['a 1', 'a 2', 'b 1', 'b 2', 'c 1', 'c 2']);
});

test('one that fails leaves nothing behind, and those after it are made all the same', async () => {
  const failing = queue.run(async (sql) => {
    await add(sql, 'half');
    throw new Error('no more');
  });
  const next = queue.run((sql) => add(sql, 'whole'));
  await expect(failing).rejects.toThrow('no more');
  await next;
  expect(await rowsNow()).toEqual(['whole']);
  // What the database refuses is told as it says it.
  await expect(queue.run((sql) => add(sql, 'whole'))).rejects.toThrow(/UNIQUE/);
  expect(await rowsNow()).toEqual(['whole']);
});

test('while somebody else holds the database, whoever waits for it leaves the thread to others', async () => {
  const other = new Database(String(database.options.database));
  other.exec('BEGIN IMMEDIATE');
  const change = queue.run((sql) => add(sql, 'late'));
  const before = performance.eventLoopUtilization();
  await pause(1500);
  // A share of the time, not a time: SQLite's own waiting would take more than half of it, coming again takes hardly any.
  const { utilization } = performance.eventLoopUtilization(before);
  other.exec('ROLLBACK');
  other.close();
  await change;
  expect(utilization).toBeLessThan(0.3);
  expect(await rowsNow()).toEqual(['late']);
});

test('what a change gives back is what its work gave', async () => {
  expect(await queue.run(() => Promise.resolve(42))).toBe(42);
  expect(await queue.run(async (sql) => (await rows<{ n: number }>(sql, 'SELECT 1 AS n', []))[0]!.n)).toBe(1);
});

test('a lock that another program holds is waited for, without holding up anything else', async () => {
  const path = String((database.options as { database: string }).database);
  expect(existsSync(path)).toBe(true);
  const other = new Database(path);
  other.exec('BEGIN IMMEDIATE');
  let turns = 0;
  const ticking = setInterval(() => turns++, 5);
  const change = queue.run((sql) => add(sql, 'mine'));
  let isDone = false;
  void change.finally(() => (isDone = true));
  // More than 5 turns within 120 ms. A machine that stalls may spoil a window; a wait that held up all else would spoil each of them.
  let best = 0;
  for (let window = 0; window < 10 && best <= 5; window++) {
    const before = turns;
    await pause(120);
    best = Math.max(best, turns - before);
  }
  expect(best).toBeGreaterThan(5);
  expect([await rowsNow(), isDone]).toEqual([[], false]);
  other.exec('COMMIT');
  other.close();
  await change;
  clearInterval(ticking);
  expect(await rowsNow()).toEqual(['mine']);
});

test('small changes that come together are committed together, and one that fails takes no other along', async () => {
  let commits = 0;
  const counting = { run: <T>(work: (sql: never) => Promise<T>) => (commits++, queue.run(work as never)) } as unknown as TransactionQueue;
  const grouped = new GroupedWrites(counting);
  await Promise.all(Array.from({ length: 20 }, (_, index) => grouped.submit((sql) => add(sql, `n${index}`))));
  expect([commits, (await rowsNow()).length]).toEqual([1, 20]);
  const results = await Promise.allSettled(['x', 'n3', 'y'].map((text) => grouped.submit((sql) => add(sql, text))));
  expect(results.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
  expect((await rowsNow()).slice(20)).toEqual(['x', 'y']);
  expect(complaints).toEqual([]);
});
