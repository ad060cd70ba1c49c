import { randomUUID } from 'node:crypto';
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { HoldAnswer } from '@mailbag/contract';
import type { StoryLine } from '@mailbag/core';
import { assertCopy } from '@mailbag/core';
import Database from 'libsql';
import { startBatch } from '../demo/src/start-batch.js';
import { readByOther } from '../testing/other-reader.js';
import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';

/** Everything that can happen while ten thousand messages leave; ATTACK=whole in the environment is the whole storm, without it a short one. */
const WHOLE = process.env.ATTACK === 'whole';
const DELIVERIES = Number(process.env.STORM ?? (WHOLE ? 10_000 : 120));
const KILLS = WHOLE ? 40 : 3;
const BACKUP_EVERY = WHOLE ? 20_000 : 9000;

/** A row of numbers that look random and are the same at every run (common practice, no source: mulberry32). */
function seeded(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const random = seeded(7);
const pause = (milliseconds: number): Promise<void> => new Promise((done) => setTimeout(done, milliseconds));

/** How the recipients are treated, with their shares of a thousand. */
const shares: [word: string, share: number][] = [
  ['unknown', 40],
  ['later', 60],
  ['full', 8],
  ['drop', 12],
  ['cut', 8],
  ['hang', 4],
  ['gone', 40],
  ['stuffed', 20],
  ['waiting', 20],
  ['away', 20],
  ['words', 10],
];
const treatment = (): string => {
  let at = random() * 1000;
  return shares.find(([, share]) => (at -= share) < 0)?.[0] ?? 'fine';
};

/** A folder on a small disk of its own, where this machine lets one be made. */
const parent = mkdtempSync(join(tmpdir(), 'mailbag-storm-'));
const data = join(parent, 'data');
execFileSync('mkdir', ['-m', '700', data]);
const hasDisk = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${WHOLE ? 700 : 120}m,mode=700`, 'tmpfs', data]).status === 0;
const clock = join(parent, 'clock');
const env = {
  MAILBAG_RETRY_PACE: '0.0003',
  MAILBAG_MAIL_TIMEOUT: '700',
  MAILBAG_MAILBOX_SECONDS: '1',
  MAILBAG_TEST_CLOCK: clock,
  NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ''} --require ${resolve('testing/moved-clock.cjs')}`,
};
let office: PostOffice;
let mailbag: RunningMailbag;
beforeAll(async () => {
  writeFileSync(clock, '0');
  office = await PostOffice.open();
  mailbag = new RunningMailbag(env, data);
  await (await mailbag.start()).setUp(office);
  await mailbag.client.send('PUT', '/api/bounces', {
    address: 'bounces@larkmere.example',
    host: '127.0.0.1',
    port: office.imap,
    tls: false,
    checkCertificate: false,
    user: 'bounces',
    password: 'x',
    folder: 'INBOX',
    smtpPort: 0,
  });
});
afterAll(async () => {
  await mailbag.kill();
  await office.close();
  if (hasDisk) spawnSync('umount', ['-l', data]);
  rmSync(parent, { recursive: true, force: true });
});

const cli = (...args: string[]): ChildProcess =>
  spawn(process.execPath, ['apps/cli/bin/mailbag.mjs', ...args], { stdio: ['ignore', 'ignore', 'pipe'] });
const endOf = (child: ChildProcess): Promise<number | null> =>
  child.exitCode !== null ? Promise.resolve(child.exitCode) : new Promise((done) => child.once('exit', done));

/** Takes backups, one after the other, until it is told to end. */
class BackupTaker {
  readonly taken: string[] = [];
  readonly failed: string[] = [];
  private isOver = false;
  private readonly running: Promise<void>;

  constructor() {
    this.running = this.run();
  }
  private async run(): Promise<void> {
    while (!this.isOver) {
      const from = Date.now();
      const path = join(parent, `backup-${this.taken.length + this.failed.length}.zip`);
      const child = cli('backup', '--data', data, '--to', path);
      let output = '';
      child.stderr!.on('data', (chunk: Buffer) => (output += chunk.toString()));
      if ((await endOf(child)) === 0) this.taken.push(path);
      else this.failed.push(output.trim());
      while (!this.isOver && Date.now() - from < BACKUP_EVERY) await pause(100);
    }
  }
  end(): Promise<void> {
    this.isOver = true;
    return this.running;
  }
}

/** Starts again, as often as it takes: a full disk lets no server start. */
async function again(): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      return await mailbag.startAgain();
    } catch (error) {
      if (tries > 10) throw error;
      await pause(300);
    }
  }
}
/** What a person does may be refused while the server is down or its disk is full. */
const perhaps = (asked: Promise<unknown>): Promise<void> =>
  asked.then(
    () => undefined,
    () => undefined,
  );

const counts: Record<string, number> = {};
/** Everything that happens in a storm, but for kills. */
const troubles: Record<string, (batch: number) => Promise<void>> = {
  async 'peaceful stop'() {
    expect(await mailbag.stop()).toBeLessThan(10_500);
    await again();
  },
  async 'second start'() {
    const child = spawn(process.execPath, ['apps/server/bin/server.mjs'], {
      env: { ...process.env, MAILBAG_DATA: data, MAILBAG_PORT: '0', MAILBAG_LOCAL_TARGETS: 'all' },
      stdio: 'ignore',
    });
    expect(await endOf(child)).toBe(1);
  },
  async pause(batch) {
    await perhaps(mailbag.client.send('POST', `/api/batches/${batch}/pause`));
    await pause(random() * 600);
    await perhaps(mailbag.client.send('POST', `/api/batches/${batch}/resume`));
  },
  async 'full disk'() {
    if (!hasDisk) return;
    const { bavail, bsize } = statfsSync(data);
    spawnSync('fallocate', ['-l', String(Math.max(1, bavail * bsize - 4096)), join(data, 'filler')]);
    await pause(500 + random() * 800);
    rmSync(join(data, 'filler'), { force: true });
  },
  async 'clock back'() {
    writeFileSync(clock, String(-Math.round(random() * 3 * 3_600_000)));
    await pause(400);
  },
  async 'clock forward'() {
    writeFileSync(clock, String(Math.round(random() * 3 * 3_600_000)));
    await pause(400);
  },
};

async function restored(path: string, at: number): Promise<{ copies: number; held: boolean; sent: number }> {
  const folder = join(parent, `restored-${at}`);
  expect(await endOf(cli('restore', path, '--data', folder))).toBe(0);
  expect(await endOf(cli('check-folder', '--data', folder))).toBe(0);
  const before = (await office.letters()).length;
  const one = new RunningMailbag({ MAILBAG_RETRY_PACE: '0.0003', MAILBAG_MAIL_TIMEOUT: '700' }, folder);
  try {
    await one.start();
    await one.signIn();
    await pause(1500);
    const { total } = await one.client.get<{ total: number }>('/api/copies/counts');
    const { held } = await one.client.get<HoldAnswer>('/api/safety/hold');
    return { copies: total, held: held !== null, sent: (await office.letters()).length - before };
  } finally {
    await one.close();
  }
}

test('a storm of everything: nothing lost, nothing twice, nobody else’s copy; backups from its midst are whole and send nothing', async () => {
  const rows = (count: number, letter: string): [string, string, string, string][] =>
    Array.from({ length: count }, (_, index) => [
      `${letter}${index + 1}`,
      `Tenant ${letter}${index + 1}`,
      `${treatment()}.${letter.toLowerCase()}${index + 1}@example.org`,
      'yes',
    ]);
  const { mailing } = await smallMailing(mailbag.client, rows(DELIVERIES, 'S'), { folder: 'storm' });
  // Two windows start it at once.
  const { digest, version } = await mailbag.client.send<{ digest: string; version: number }>('POST', `/api/mailings/${mailing}/start`, {
    who: 'new',
  });
  const starts = await Promise.allSettled(
    [randomUUID(), randomUUID()].map((startKey) =>
      mailbag.client.send<Batch>('POST', `/api/mailings/${mailing}/batches`, { who: 'new', digest, version, startKey }),
    ),
  );
  const begun = starts.flatMap((start) => (start.status === 'fulfilled' ? [start.value.id] : []));
  expect(begun).toHaveLength(1);
  const id = begun[0]!;
  // Another one is cancelled in its midst.
  const side = Math.ceil(DELIVERIES / 10);
  const { mailing: other } = await smallMailing(mailbag.client, rows(side, 'C'), { folder: 'cancelled' });
  const { id: cancelled } = await startBatch<Batch>(mailbag.client, other);

  const backups = new BackupTaker();
  const names = Object.keys(troubles);
  for (let kill = 0; kill < KILLS; kill++) {
    await pause(150 + random() * (WHOLE ? 1500 : 500));
    // The mail server itself fails now and then, too.
    await office.behave(`mood=${kill % 4 === 1 ? 'busy' : kill % 4 === 3 ? 'garbage' : 'well'}`);
    await mailbag.kill();
    await again();
    await office.behave('mood=well');
    const name = names[kill % names.length]!;
    counts[name] = (counts[name] ?? 0) + 1;
    await troubles[name]!(id);
    if (kill === Math.floor(KILLS / 3)) await perhaps(mailbag.client.send('POST', `/api/batches/${cancelled}/cancel`));
  }
  writeFileSync(clock, '0');
  // From here on nobody does anything: all of it goes on by itself.
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done', 900);
  const isOut = async (word: string): Promise<CopyRow[]> =>
    (await mailbag.client.get<{ rows: CopyRow[] }>(`/api/copies?batch=${id}&state=sent&text=${word}&count=200`)).rows;
  for (const word of ['gone', 'stuffed', 'words'])
    for (const end = Date.now() + 180_000; ;) {
      const left = await isOut(word);
      if (left.length === 0) break;
      // Whoever reads this needs to know what became of their bounces.
      if (Date.now() > end)
        expect({
          left: left.map(({ address }) => address),
          reports: (
            await mailbag.client.get<{ kind: string; doubt: string | null; detail: string | null }[]>('/api/bounces/reports')
          ).slice(0, 5),
          look: await mailbag.client.get('/api/bounces'),
        }).toEqual({ left: [] });
      await pause(500);
    }
  await backups.end();

  const copies = await copiesOf(mailbag.client, id);
  const aside = await copiesOf(mailbag.client, cancelled);
  const received = await office.letters();
  expect(copies).toHaveLength(DELIVERIES);

  // No message twice, and no copy at another's address: the bytes that arrived are those that the ledger has for this person.
  expect(new Set(received.map(({ messageId }) => messageId)).size).toBe(received.length);
  expect(new Set(received.map(({ to }) => to)).size).toBe(received.length);
  const database = new Database(join(data, 'mailbag.sqlite'), { readonly: true });
  const digests = new Map(
    (database.prepare('SELECT address, sha256 FROM copy').all([]) as { address: string; sha256: string }[]).map((row) => [
      row.address,
      row.sha256,
    ]),
  );
  const byAddress = new Map([...copies, ...aside].map((copy) => [copy.address, copy]));
  const misdirected = received.filter(({ to, attachments, subject }) => {
    const name = byAddress.get(to)?.file.split('/').at(-1) ?? '';
    return (
      attachments.length !== 1 ||
      attachments[0]!.name !== name ||
      attachments[0]!.sha256 !== digests.get(to) ||
      subject !== `Plot ${name.replace('.pdf', '')}`
    );
  });
  expect(misdirected).toEqual([]);
  // And what stands in them is theirs, as another reader reads it.
  for (let at = 0; at < copies.length; at += Math.ceil(copies.length / 60)) {
    const { id: copy, file, recipient } = copies[at]!;
    const [page] = await readByOther(await mailbag.client.bytes(`/api/copies/${copy}/pdf`));
    expect([file, page!.text.includes(recipient), page!.text.includes(file.split('/').at(-1)!.replace('.pdf', ''))]).toEqual([
      file,
      true,
      true,
    ]);
  }

  // Every delivery is where it belongs, and what nobody can know is told as that.
  const arrived = new Set(received.map(({ to }) => to));
  const allowed: Record<string, string[]> = {
    unknown: ['bounced'],
    full: ['bounced'],
    hang: ['bounced'],
    later: ['sent', 'unconfirmed'],
    fine: ['sent', 'unconfirmed'],
    away: ['sent', 'unconfirmed'],
    waiting: ['sent', 'unconfirmed'],
    drop: ['unconfirmed'],
    cut: ['unconfirmed'],
    gone: ['bounced', 'unconfirmed'],
    stuffed: ['bounced', 'unconfirmed'],
    words: ['bounced', 'unconfirmed'],
  };
  const wrong = copies.filter(({ address, state }) => !allowed[address.split('.')[0]!]!.includes(state));
  expect(wrong.map(({ address, state }) => `${address} ${state}`)).toEqual([]);
  for (const { address, state } of [...copies, ...aside])
    if (state === 'sent') expect([address, arrived.has(address)]).toEqual([address, true]);
  // A delivery can be unknown only when its message had begun to leave; at most as many per kill as connections were open.
  const unconfirmed = copies.filter(({ state, address }) => state === 'unconfirmed' && !/^(drop|cut)\./.test(address));
  expect(unconfirmed.length).toBeLessThanOrEqual((KILLS + (counts['peaceful stop'] ?? 0)) * 5);

  // Every story keeps the law.
  const events = database.prepare('SELECT copyId, event, state FROM copy_event ORDER BY id').all() as (StoryLine & { copyId: number })[];
  database.close();
  const stories = new Map<number, StoryLine[]>();
  for (const { copyId, event, state } of events) {
    const story = stories.get(copyId);
    if (story) story.push({ event, state });
    else stories.set(copyId, [{ event, state }]);
  }
  const broken = copies.flatMap(({ id: copy, state }) =>
    assertCopy({ state: state as never, hasFile: true, story: stories.get(copy) ?? [] }).map((why) => `${copy}: ${why}`),
  );
  expect(broken).toEqual([]);
  // The archive holds every copy, as the ledger knows it.
  await mailbag.stop();
  expect(await endOf(cli('check-folder', '--data', data))).toBe(0);
  expect(readdirSync(join(data, 'spool')).filter((name) => name.endsWith('.part'))).toEqual([]);
  await again();

  // Each backup is a whole state of some moment, and sends nothing by itself.
  expect(backups.taken.length).toBeGreaterThan(0);
  for (const [at, path] of backups.taken.entries()) {
    const { held, sent } = await restored(path, at);
    expect([path, held, sent]).toEqual([path, true, 0]);
  }
  // One that could not be taken says that the disk was full, and nothing else.
  for (const why of backups.failed) expect(why).toMatch(/full|no room|server stops|could not be taken/i);

  // A person settles what is unconfirmed.
  const open = copies.filter(({ state }) => state === 'unconfirmed').map((copy) => copy.id);
  if (open.length > 0)
    expect((await mailbag.client.send<{ done: number }>('POST', '/api/copies/many', { action: 'confirm-sent', ids: open })).done).toBe(
      open.length,
    );
  if (WHOLE || process.env.STORM)
    process.stdout.write(
      `${JSON.stringify({ deliveries: DELIVERIES, kills: KILLS, ...counts, disk: hasDisk, received: received.length, states: countsOf(copies), cancelled: countsOf(aside), backups: backups.taken.length, notTaken: backups.failed })}\n`,
    );
}, 3_000_000);

const countsOf = (copies: readonly CopyRow[]): Record<string, number> =>
  copies.reduce<Record<string, number>>((all, { state }) => ({ ...all, [state]: (all[state] ?? 0) + 1 }), {});
