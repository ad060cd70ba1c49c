import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';
import { startBatch } from '../demo/src/start-batch.js';

/** ATTACK=whole in the environment: longer batches, stopped more often. */
const WHOLE = process.env.ATTACK === 'whole';
const [ROUNDS, RECORDS, MESSAGES] = WHOLE ? [3, 4000, 30] : [2, 2800, 16];

/** A server that is told to stop finishes what it has in hand, lets go of everything else, and is gone within ten seconds; the next start goes on. */
let office: PostOffice;
const mailbag = new RunningMailbag({ MAILBAG_MAIL_TIMEOUT: '20000' });
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});
/** An open page, as a browser holds it. @returns whether its stream has ended */
async function openPage(): Promise<() => boolean> {
  let isOver = false;
  const stream = await fetch(`${mailbag.address}/api/events`, { headers: { cookie: mailbag.client.cookieHeader } });
  void (async () => {
    for await (const _ of stream.body!);
  })()
    .catch(() => undefined)
    .finally(() => (isOver = true));
  return () => isOver;
}
const rows = (count: number, treatment: string, folder: string): [string, string, string, string][] =>
  Array.from({ length: count }, (_, at) => [`${folder[0]}${at}`, `T ${at}`, `${treatment}.${folder}${at}@example.org`, 'no']);

test('with a page open and a batch running it stops in time and goes on by itself', async () => {
  const { mailing } = await smallMailing(mailbag.client, rows(RECORDS, 'fine', 'stop'), { mailed: false, folder: 'stop' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  for (let round = 0; round < ROUNDS; round++) {
    await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ counts }) => (counts.made ?? 0) > round * 900);
    const isOver = await openPage();
    const took = await mailbag.stop();
    expect(took).toBeLessThan(10_000);
    expect(mailbag.end).toBe(0);
    expect(isOver()).toBe(true);
    expect(mailbag.log()).not.toMatch(/ERROR/);
    await mailbag.startAgain();
    expect((await mailbag.client.get<Batch>(`/api/batches/${id}`)).state).not.toBe('paused');
  }
  const { counts, error } = await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect({ counts, error }).toEqual({ counts: { made: RECORDS }, error: null });
});

test('messages that are under way are finished or given back: nobody is mailed twice, and nothing is in doubt that had not begun to leave', async () => {
  const { mailing } = await smallMailing(mailbag.client, rows(MESSAGES, 'slow', 'way'), { folder: 'way' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ counts }) => (counts.sending ?? 0) > 4);
  expect(await mailbag.stop()).toBeLessThan(10_000);
  await mailbag.startAgain();
  const { counts } = await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(counts).toEqual({ sent: MESSAGES });
  const letters = (await office.letters()).filter(({ to }) => to.startsWith('slow.way'));
  expect(letters).toHaveLength(MESSAGES);
  expect(new Set(letters.map(({ to }) => to)).size).toBe(MESSAGES);
});

test('a server that waits for a mail server that never answers is gone in time, and says what nobody can know', async () => {
  const { mailing } = await smallMailing(mailbag.client, rows(3, 'hang', 'hang'), { folder: 'hang' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ counts }) => (counts.sending ?? 0) === 3);
  await openPage();
  expect(await mailbag.stop()).toBeLessThan(10_000);
  await mailbag.startAgain();
  const states = (await copiesOf(mailbag.client, id)).map(({ state }) => state);
  expect(states.every((state) => ['unconfirmed', 'retrying', 'queued', 'sending'].includes(state))).toBe(true);
  await mailbag.client.send('POST', `/api/batches/${id}/cancel`);
});

test('a request in the middle of a stop gets an answer or a sentence', async () => {
  const stopping = mailbag.stop();
  const answers = await Promise.all(
    Array.from({ length: 20 }, async (_, at) => {
      await new Promise((done) => setTimeout(done, at * 5));
      return fetch(`${mailbag.address}/api/health`).then(
        ({ status }) => status,
        () => 'closed',
      );
    }),
  );
  await stopping;
  for (const answer of answers) expect([200, 503, 'closed']).toContain(answer);
  await mailbag.startAgain();
});
