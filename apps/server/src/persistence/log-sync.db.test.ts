import type * as Files from 'node:fs/promises';
import type { DataSource } from 'typeorm';
import { ownDatabase } from '../../../../testing/own-database.js';
import { LogSync } from './log-sync.js';
import { run } from './sql.js';
import { TransactionQueue } from './transaction-queue.js';

jest.mock('node:fs/promises', () => ({ ...jest.requireActual<typeof Files>('node:fs/promises') }));

/** Syncs of the log that were asked of the system, each ended by hand. */
interface Asked {
  end: (error?: Error) => void;
}
let asked: Asked[];
let database: DataSource;
let close: () => Promise<void>;
beforeEach(async () => {
  ({ database, close } = await ownDatabase());
  await database.query('CREATE TABLE note (text TEXT)');
  asked = [];
  const { open } = jest.requireActual<typeof Files>('node:fs/promises');
  jest.spyOn(jest.requireMock<typeof Files>('node:fs/promises'), 'open').mockImplementation(async (path, ...rest) => {
    const file = await open(path, ...rest);
    if (!String(path).endsWith('-wal')) return file;
    const datasync = (): Promise<void> => new Promise((done, failed) => asked.push({ end: (error) => (error ? failed(error) : done()) }));
    return Object.assign(file, { datasync }) as Files.FileHandle;
  });
});
afterEach(async () => {
  jest.restoreAllMocks();
  await close();
});

const turns = (): Promise<void> => new Promise((done) => setTimeout(done, 30));
async function until(what: () => boolean): Promise<void> {
  while (!what()) await turns();
}
const notes = async (): Promise<number> => ((await database.query('SELECT COUNT(*) AS n FROM note')) as { n: number }[])[0]!.n;

test('a change is over when the disk has it, and the next one does not wait for the disk', async () => {
  const queue = new TransactionQueue(database, () => undefined);
  const over: string[] = [];
  const change = (name: string): Promise<void> =>
    queue.run((sql) => run(sql, 'INSERT INTO note (text) VALUES (?)', [name])).then(() => void over.push(name));
  const first = change('first');
  await until(() => asked.length === 1);
  const others = [change('second'), change('third')];
  // All three are committed while the disk is still at the first.
  while ((await notes()) < 3) await turns();
  expect([over, asked.length]).toEqual([[], 1]);
  asked[0]!.end();
  await first;
  // The two that came meanwhile share a sync, which began after them.
  await until(() => asked.length === 2);
  await turns();
  expect([over, asked.length]).toEqual([['first'], 2]);
  asked[1]!.end();
  await Promise.all(others);
  expect([over.sort(), asked.length]).toEqual([['first', 'second', 'third'], 2]);
});

test('a disk that refuses is told to whoever made the change, and the next sync is asked for anew', async () => {
  const queue = new TransactionQueue(database, () => undefined);
  const change = (): Promise<void> => queue.run((sql) => run(sql, 'INSERT INTO note (text) VALUES (?)', ['x']));
  const failing = change();
  await until(() => asked.length === 1);
  const waiting = change();
  while ((await notes()) < 2) await turns();
  asked[0]!.end(Object.assign(new Error('ENOSPC: no space left on device, fdatasync'), { code: 'ENOSPC' }));
  await expect(failing).rejects.toMatchObject({ code: 'disk-full' });
  await until(() => asked.length === 2);
  asked[1]!.end();
  await waiting;
});

test('where there is no log, nothing is left to be synced', async () => {
  await expect(new LogSync(`${String(database.options.database)}-other`).durable()).resolves.toBeUndefined();
  expect(asked).toEqual([]);
});

test('the main connection neither syncs in a commit nor carries the log over', async () => {
  const [{ synchronous }] = (await database.query('PRAGMA synchronous')) as [{ synchronous: number }];
  const [{ wal_autocheckpoint: pages }] = (await database.query('PRAGMA wal_autocheckpoint')) as [{ wal_autocheckpoint: number }];
  expect([synchronous, pages]).toEqual([1, 0]);
});

test('the log is carried over after very many changes', async () => {
  jest.restoreAllMocks();
  let carried = 0;
  const queue = new TransactionQueue(database, () => undefined);
  queue.checkpoint = () => Promise.resolve(void carried++);
  for (let n = 0; n < 400; n++) await queue.run((sql) => run(sql, 'INSERT INTO note (text) VALUES (?)', [String(n)]));
  expect(carried).toBe(1);
});
