import { join } from 'node:path';
import Database from 'libsql';
import type { StoryLine } from '@mailbag/core';
import { assertCopy } from '@mailbag/core';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

/** Deliveries and kills of one storm; STORM=5000 in the environment is the whole one. */
const DELIVERIES = Number(process.env.STORM ?? 250);
const KILLS = DELIVERIES >= 5000 ? 24 : 5;

/** A row of numbers that look random and are the same at every run (common practice, no source: mulberry32). */
function seeded(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

let office: PostOffice;
const mailbag = new RunningMailbag({ MAILBAG_RETRY_PACE: '0.0003', MAILBAG_MAIL_TIMEOUT: '700', MAILBAG_MAILBOX_SECONDS: '1' });
beforeAll(async () => {
  office = await PostOffice.open();
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
  await mailbag.close();
  await office.close();
});

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

test('a storm of refusals, hangs, lost connections, late bounces and kills: nothing lost, nothing twice, nobody else’s copy', async () => {
  const random = seeded(5);
  const treatment = (): string => {
    let at = random() * 1000;
    return shares.find(([, share]) => (at -= share) < 0)?.[0] ?? 'fine';
  };
  const rows = Array.from({ length: DELIVERIES }, (_, index): [string, string, string, string] => [
    `S${index + 1}`,
    `Tenant ${index + 1}`,
    `${treatment()}.s${index + 1}@example.org`,
    'yes',
  ]);
  const { mailing } = await smallMailing(mailbag.client, rows, { folder: 'storm' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  for (let kill = 0; kill < KILLS; kill++) {
    await new Promise((done) => setTimeout(done, 200 + random() * (DELIVERIES >= 5000 ? 2500 : 700)));
    // The mail server itself fails now and then, too.
    await office.behave(`mood=${kill % 4 === 1 ? 'busy' : kill % 4 === 3 ? 'garbage' : 'well'}`);
    await mailbag.kill();
    await mailbag.startAgain();
    await office.behave('mood=well');
  }
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done', 500);
  // Bounces that are still on their way come in: until then nothing is said of their copies.
  for (const word of ['gone', 'stuffed', 'words'])
    await mailbag.client.until<{ rows: unknown[] }>(
      `/api/copies?batch=${id}&state=sent&text=${word}&count=1`,
      ({ rows: left }) => left.length === 0,
      120,
    );

  const copies = await copiesOf(mailbag.client, id);
  const received = await office.letters();
  expect(copies).toHaveLength(DELIVERIES);

  // No message twice, and no copy at another's address.
  expect(new Set(received.map(({ messageId }) => messageId)).size).toBe(received.length);
  expect(new Set(received.map(({ to }) => to)).size).toBe(received.length);
  const byAddress = new Map(copies.map((copy) => [copy.address, copy]));
  for (const { to, attachments, subject } of received) {
    const copy = byAddress.get(to)!;
    expect(attachments.map(({ name }) => name)).toEqual([copy.file.split('/').at(-1)]);
    expect(subject).toBe(`Plot ${copy.file.split('/').at(-1)!.replace('.pdf', '')}`);
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
  for (const { address, state } of copies) if (state === 'sent') expect(arrived.has(address)).toBe(true);
  // A delivery can be unknown only when its message had begun to leave; at most as many per kill as connections were open.
  const unconfirmed = copies.filter(({ state, address }) => state === 'unconfirmed' && !/^(drop|cut)\./.test(address));
  expect(unconfirmed.length).toBeLessThanOrEqual(KILLS * 5);

  // Every story keeps the law.
  const database = new Database(join(mailbag.data, 'mailbag.sqlite'), { readonly: true });
  const events = database.prepare('SELECT copyId, event, state FROM copy_event ORDER BY id').all() as (StoryLine & { copyId: number })[];
  database.close();
  const stories = new Map<number, StoryLine[]>();
  for (const { copyId, event, state } of events) stories.set(copyId, [...(stories.get(copyId) ?? []), { event, state }]);
  const broken = copies.flatMap(({ id: copy, state }) =>
    assertCopy({ state: state as never, hasFile: true, story: stories.get(copy) ?? [] }).map((why) => `${copy}: ${why}`),
  );
  expect(broken).toEqual([]);

  // A person settles what is unconfirmed: some were sent, some go again as new messages.
  const open = copies.filter(({ state }) => state === 'unconfirmed').map((copy) => copy.id);
  if (open.length > 0) {
    const answer = await mailbag.client.send<{ done: number }>('POST', '/api/copies/many', { action: 'confirm-sent', ids: open });
    expect(answer.done).toBe(open.length);
  }
  if (process.env.STORM)
    console.log(
      JSON.stringify({
        deliveries: DELIVERIES,
        kills: KILLS,
        received: received.length,
        states: countsOf(copies),
        unconfirmed: open.length,
      }),
    );
}, 1_200_000);

const countsOf = (copies: readonly CopyRow[]): Record<string, number> =>
  copies.reduce<Record<string, number>>((counts, { state }) => ({ ...counts, [state]: (counts[state] ?? 0) + 1 }), {});
