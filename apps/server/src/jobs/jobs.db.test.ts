import { MailbagError } from '@mailbag/core';
import type { DataSource } from 'typeorm';
import { ownDatabase } from '../../../../testing/own-database.js';
import type { Sql } from '../persistence/sql.js';
import type { Changes } from './job-runner.js';
import { JobRunner } from './job-runner.js';
import { PATIENCE } from '../../../../testing/patience.js';

let database: DataSource;
let close: () => Promise<void>;
const opened: JobRunner[] = [];
beforeAll(async () => ({ database, close } = await ownDatabase()));
afterEach(async () => {
  for (const jobs of opened.splice(0)) await jobs.close();
  await database.query('DELETE FROM job');
});
afterAll(() => close());

/** Changes one after the other, over the one connection that there is. */
function changes(): Changes {
  let tail: Promise<unknown> = Promise.resolve();
  return {
    query: (text, values = []) => database.query(text, [...values]),
    run<T>(work: (sql: Sql) => Promise<T>): Promise<T> {
      const next = tail.then(() => work(database.manager));
      tail = next.catch(() => undefined);
      return next;
    },
  };
}
const complaints: unknown[] = [];
const jobsOf = (): JobRunner => {
  const jobs = new JobRunner(changes(), (error) => complaints.push(error));
  opened.push(jobs);
  return jobs;
};
const until = async (isSo: () => boolean | Promise<boolean>, what: string): Promise<void> => {
  for (const end = Date.now() + PATIENCE; !(await isSo());) {
    if (Date.now() > end) throw new Error(`It never came about that ${what}.`);
    await new Promise((done) => setTimeout(done, 5));
  }
};
const shown = async (jobs: JobRunner) =>
  (await jobs.answer()).jobs.map(({ kind, state, attempts, error }) => ({ kind, state, attempts, code: error?.code }));

test('as many run at a time as a kind allows, the more urgent first, and nothing stays of those that came to their end', async () => {
  const jobs = jobsOf();
  const begun: string[] = [];
  let [now, highest] = [0, 0];
  let open = (): void => undefined;
  const gate = new Promise<void>((done) => (open = done));
  jobs.register('work', {
    title: 'Work',
    atOnce: 2,
    retry: [],
    run: async ({ key }) => {
      begun.push(key);
      highest = Math.max(highest, ++now);
      await gate;
      now--;
    },
  });
  for (const key of ['a', 'b', 'c']) await jobs.add({ kind: 'work', key });
  await jobs.add({ kind: 'work', key: 'first', priority: 9 });
  await jobs.open();
  await until(() => begun.length === 2, 'two ran');
  expect(begun).toContain('first');
  open();
  await until(async () => (await jobs.answer()).jobs.length === 0, 'all were over');
  expect([begun.length, highest]).toEqual([4, 2]);
});

test('what fails is tried again by its schedule, then waits for a person with its sentence', async () => {
  const jobs = jobsOf();
  let runs = 0;
  jobs.register('work', {
    title: 'Work',
    atOnce: 1,
    retry: [1, 1],
    run: async () => {
      runs++;
      if (runs < 4) throw new MailbagError('disk-full', {});
      await Promise.resolve();
    },
  });
  await jobs.open();
  await jobs.add({ kind: 'work', subject: 'the third shelf' });
  await until(async () => (await jobs.answer()).counts.failed === 1, 'it had failed');
  expect(await shown(jobs)).toEqual([{ kind: 'work', state: 'failed', attempts: 3, code: 'disk-full' }]);
  const [job] = (await jobs.answer()).jobs;
  await jobs.tryAgain(job!.id);
  await until(async () => (await jobs.answer()).jobs.length === 0, 'it came to its end');
  expect(runs).toBe(4);
  await expect(jobs.tryAgain(job!.id)).rejects.toThrow('job');
});

test('asked for while it runs, it runs once more with what is wanted then; what waits is put together', async () => {
  const jobs = jobsOf();
  const seen: number[][] = [];
  let open = (): void => undefined;
  const gate = new Promise<void>((done) => (open = done));
  jobs.register<number[]>('work', {
    title: 'Work',
    atOnce: 1,
    retry: [],
    run: async ({ payload }) => {
      seen.push(payload);
      if (seen.length === 1) await gate;
    },
  });
  await jobs.open();
  const merge = (a: number[], b: number[]): number[] => [...a, ...b];
  await jobs.add({ kind: 'work', payload: [1], merge });
  await until(() => seen.length === 1, 'it ran');
  await jobs.add({ kind: 'work', payload: [2], merge });
  await jobs.add({ kind: 'work', payload: [3], merge });
  expect(await jobs.isUnderWay('work')).toBe(true);
  open();
  await until(async () => !(await jobs.isUnderWay('work')), 'it was over');
  expect(seen).toEqual([[1], [2, 3]]);
});

test('who asks for a job while it runs waits for the run that begins after that', async () => {
  const jobs = jobsOf();
  const ended: number[] = [];
  let begun = 0;
  let open = (): void => undefined;
  const gate = new Promise<void>((done) => (open = done));
  jobs.register('read', {
    title: 'Reading',
    atOnce: 1,
    retry: [],
    run: async () => {
      const own = ++begun;
      await (own === 1 ? gate : new Promise((done) => setTimeout(done, 50)));
      ended.push(own);
    },
  });
  await jobs.open();
  await jobs.add({ kind: 'read', key: 1 });
  await until(() => begun === 1, 'the first reading began');
  const asked = jobs.run({ kind: 'read', key: 1 });
  await until(
    async () => (await database.query<{ again: number }[]>('SELECT again FROM job'))[0]?.again === 1,
    'it was asked for once more',
  );
  open();
  await asked;
  expect(ended).toEqual([1, 2]);
});

test('who waits for a job is told how it ended', async () => {
  const jobs = jobsOf();
  jobs.register<boolean>('work', {
    title: 'Work',
    atOnce: 4,
    retry: [],
    run: async ({ payload }) => {
      await Promise.resolve();
      if (!payload) throw new MailbagError('database-busy', { seconds: 60 });
    },
  });
  await jobs.open();
  await jobs.run({ kind: 'work', key: 1, payload: true });
  await expect(jobs.run({ kind: 'work', key: 2, payload: false })).rejects.toMatchObject({ code: 'database-busy' });
  // Nothing is under way, so there is nothing to wait for.
  await jobs.settled('work', 3);
});

test('a server that stops leaves its jobs to the next one, which goes on with them', async () => {
  const first = jobsOf();
  const seen: string[] = [];
  const kind = (name: string) => ({
    title: 'Work',
    atOnce: 1,
    retry: [],
    ends: true,
    run: async ({ signal }: { signal: AbortSignal }) => {
      seen.push(name);
      if (name === 'second') return;
      await new Promise((_, fail) => signal.addEventListener('abort', () => fail(new MailbagError('server-stops', {}))));
    },
  });
  first.register('work', kind('first'));
  await first.open();
  await first.add({ kind: 'work' });
  await until(() => seen.length === 1, 'the first server ran it');
  await first.close();
  const second = jobsOf();
  second.register('work', kind('second'));
  await second.open();
  await until(async () => (await second.answer()).jobs.length === 0, 'the second server was done with it');
  expect(seen).toEqual(['first', 'second']);
});

test('what is broken off with its thread when the server stops was not tried', async () => {
  const jobs = jobsOf();
  let begun = false;
  jobs.register('endless', { title: 'Endless', atOnce: 1, retry: [1], run: () => ((begun = true), new Promise<void>(() => undefined)) });
  await jobs.open();
  await jobs.add({ kind: 'endless' });
  await until(() => begun, 'the job began');
  await jobs.close();
  expect(await shown(jobs)).toEqual([{ kind: 'endless', state: 'waiting', attempts: 0, code: undefined }]);
});

test('what repeats runs again after its time, also after a failure, and a run may say when it is to be the next', async () => {
  const jobs = jobsOf();
  let [runs, asked] = [0, 0];
  jobs.register('tick', {
    title: 'Tick',
    atOnce: 1,
    retry: [],
    run: async () => {
      await Promise.resolve();
      if (++runs === 2) throw new MailbagError('disk-full', {});
    },
  });
  jobs.register('ask', { title: 'Ask', atOnce: 1, retry: [], run: () => Promise.resolve(++asked < 3 ? 1 : undefined) });
  jobs.every({ kind: 'tick' }, 5);
  await jobs.open();
  await jobs.add({ kind: 'ask' });
  await until(() => runs >= 4 && asked === 3, 'it had run four times');
  await until(async () => (await jobs.answer()).jobs.length === 1, 'what asked was over');
  // Asked for by itself, it goes on repeating.
  const before = runs;
  await jobs.run({ kind: 'tick' });
  await until(() => runs > before + 2, 'it had gone on');
  expect((await jobs.answer()).jobs[0]).toMatchObject({ kind: 'tick', repeats: true });
});

test('whoever asks between the end of a run and its news waits for a run that begins after that', async () => {
  const plain = changes();
  let hold: Promise<void> | null = null;
  // The disk takes its time: what was committed is there for others before whoever made the change is told.
  const slow: Changes = {
    query: plain.query.bind(plain),
    run: async (work) => {
      const result = await plain.run(work);
      await hold;
      return result;
    },
  };
  const jobs = new JobRunner(slow, (error) => complaints.push(error));
  opened.push(jobs);
  const begun: number[] = [];
  let told = (): void => undefined;
  jobs.register('work', {
    title: 'Work',
    atOnce: 1,
    retry: [],
    run: () => {
      begun.push(begun.length);
      if (begun.length === 1) hold = new Promise<void>((done) => (told = done));
      return Promise.resolve();
    },
  });
  await jobs.open();
  const first = jobs.run({ kind: 'work', key: 1 });
  await until(async () => begun.length === 1 && !(await jobs.isUnderWay('work', 1)), 'the first run was over');
  const second = jobs.run({ kind: 'work', key: 1 }).then(() => begun.length);
  await until(() => jobs.isUnderWay('work', 1), 'the second one was asked for');
  hold = null;
  told();
  await first;
  expect(await second).toBe(2);
});

test('a run whose end cannot be written down is nobody’s when its lease is over, and whoever waited is told by the next', async () => {
  const plain = changes();
  let refuses = false;
  const failing: Changes = {
    query: plain.query.bind(plain),
    run: (work) =>
      plain.run(async (sql) => {
        await database.query('SAVEPOINT before');
        const result = await work(sql);
        await database.query(refuses ? 'ROLLBACK TO before' : 'RELEASE before');
        if (refuses) throw new Error('no room');
        return result;
      }),
  };
  const jobs = new JobRunner(failing, (error) => complaints.push(error));
  opened.push(jobs);
  let runs = 0;
  for (const name of ['work', 'other'])
    jobs.register(name, {
      title: 'Work',
      atOnce: 1,
      retry: [],
      run: () => {
        if (name === 'work') refuses = ++runs === 1;
        return Promise.resolve();
      },
    });
  await jobs.open();
  let isTold = false;
  const waiting = jobs.run({ kind: 'work', key: 1 }).then(() => (isTold = true));
  await until(() => complaints.some((one) => one instanceof Error && one.message === 'no room'), 'the end was refused');
  refuses = false;
  expect(isTold).toBe(false);
  // A minute later.
  await database.query('UPDATE job SET leaseUntil = 0');
  await jobs.add({ kind: 'other' });
  await waiting;
  expect([isTold, runs]).toEqual([true, 2]);
});
