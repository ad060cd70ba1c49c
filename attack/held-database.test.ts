import type Database from 'libsql';
import { RunningMailbag } from '../testing/running-mailbag.js';
import { smallMailing } from '../testing/small-mailing.js';
import type { Batch } from '../testing/small-mailing.js';
import { waits } from '../testing/watching.js';
import { startBatch } from '../demo/src/start-batch.js';

/** Another program, such as a backup or a curious person with a database tool, may hold the write lock: changes wait, nothing else does, and it passes. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

/** Milliseconds, longer than a change waits before it asks for the lock with the longest pauses. */
const HELD = 17_000;

const held: Database.Database[] = [];
const hold = (): Database.Database => {
  const other = mailbag.beside();
  other.exec('BEGIN IMMEDIATE');
  held.push(other);
  return other;
};
// What one test leaves held must not fail the next.
afterEach(() => held.splice(0).forEach((other) => other.close()));
const release = (other: Database.Database): void => {
  other.exec('UPDATE setting SET name = name');
  other.exec('COMMIT');
  other.close();
};
const create = (name: string): Promise<{ id: number; version: number; plan: { name: string } }> =>
  mailbag.client.send('POST', '/api/mailings', { name });

test('while the database is held for 17 seconds looking goes on, changes wait, and all of them are done afterwards', async () => {
  // What the first of everything costs after a start is not what is measured.
  await Promise.all(Array.from({ length: 20 }, (_, at) => create(`Before ${at}`)));
  const other = hold();
  let done = 0;
  const changes = Promise.all(Array.from({ length: 20 }, async (_, at) => (await create(`Held ${at}`), done++)));
  const looks = await waits(mailbag.address, new Promise((over) => setTimeout(over, HELD)));
  // Asking for the lock again and again on the thread that answers everybody would hold them up most of the time; a busy machine does so now and then.
  const slow = looks.filter((wait) => wait > 200);
  expect(slow.reduce((sum, wait) => sum + wait, 0)).toBeLessThan(HELD / 10);
  expect(done).toBe(0);
  release(other);
  await changes;
  expect((await mailbag.client.get<{ name: string }[]>('/api/mailings')).filter(({ name }) => name.startsWith('Held'))).toHaveLength(20);
});

test('a database that changes again and again behind the server’s back never leaves its connection behind', async () => {
  for (let round = 0; round < 15; round++) {
    const other = hold();
    const change = create(`Round ${round}`);
    await new Promise((over) => setTimeout(over, 40 * round));
    other.exec("INSERT INTO history (at, who, action, subject) VALUES ('2027-01-15', 'x', 'x', 'x')");
    other.exec('COMMIT');
    other.close();
    const { id, version, plan } = await change;
    await mailbag.client.send('PUT', `/api/mailings/${id}`, { version, plan: { ...plan, name: `Round ${round} again` } });
    // What is read back is what was written just now, not an older state.
    expect((await mailbag.client.get<{ plan: { name: string } }>(`/api/mailings/${id}`)).plan.name).toBe(`Round ${round} again`);
  }
});

test('a batch that runs while the database is held again and again ends whole', async () => {
  const rows = Array.from({ length: 1200 }, (_, at): [string, string, string, string] => [`H-${at}`, `T ${at}`, '', 'no']);
  const { mailing } = await smallMailing(mailbag.client, rows, { mailed: false, folder: 'held' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  for (let round = 0; round < 6; round++) {
    const other = hold();
    await new Promise((over) => setTimeout(over, 700));
    release(other);
    await new Promise((over) => setTimeout(over, 100));
  }
  const batch = await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(batch).toMatchObject({ counts: { made: 1200 }, error: null });
});
