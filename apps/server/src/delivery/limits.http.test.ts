import { addMailServer, addSender, mailServer } from '../../../../demo/src/mail-set-up.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
const mailbag = new RunningMailbag({ MAILBAG_MAIL_TIMEOUT: '1200', MAILBAG_RETRY_PACE: '0.01' });
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});
afterEach(async () => {
  await office.behave('mood=well');
  await setServer({});
});

const setServer = async (more: object): Promise<void> => {
  const [server] = await mailbag.client.get<{ id: number }[]>('/api/mail-servers');
  await mailbag.client.send('PUT', `/api/mail-servers/${server!.id}`, { ...mailServer(office.smtp), ...more });
};
const rows = (count: number, domain = 'example.org'): [string, string, string, string][] =>
  Array.from({ length: count }, (_, index) => [`L-${index + 1}`, `T ${index + 1}`, `l${index + 1}@${domain}`, 'no']);
async function started(folder: string, list: [string, string, string, string][], message: object = {}): Promise<number> {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, list, { folder });
  const { version, plan } = await client.get<{ version: number; plan: { message: object } }>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, message: { ...plan.message, ...message } } });
  const { id } = await startBatch<Batch>(client, mailing);
  return id;
}
interface Waiting extends Batch {
  waiting: { code: string; fields: Record<string, string> } | null;
}
const batchOf = (id: number, suits: (batch: Waiting) => boolean): Promise<Waiting> =>
  mailbag.client.until<Waiting>(`/api/batches/${id}`, suits);

test.each(['busy', 'garbage', 'silent', 'broken-tls'])('a mail server that is %s makes the copies wait, and bounces none', async (mood) => {
  // Another number of connections closes those that are open.
  await setServer({ connections: 3 });
  await office.behave(`mood=${mood}`);
  const id = await started(`mood-${mood}`, rows(12));
  const waiting = await batchOf(id, (batch) => batch.waiting?.code === 'server-rests' || (batch.counts.retrying ?? 0) > 0);
  expect(waiting.counts.bounced).toBeUndefined();
  const [server] = await mailbag.client.get<{ rest: { detail: string } | null }[]>('/api/mail-servers');
  if (server!.rest) expect(server!.rest.detail.length).toBeGreaterThan(5);
  await office.behave('mood=well');
  expect((await batchOf(id, ({ state }) => state === 'done')).counts).toEqual({ sent: 12 });
});

test('limits a minute hold what is over them, for each domain too, also after a restart', async () => {
  const limited = async (name: string, limits: object): Promise<number> => {
    const server = await addMailServer(mailbag.client, office.smtp, { name, ...limits });
    return addSender(mailbag.client, server, `${name}@larkmere.example`, (address) => office.code(address), name);
  };
  const id = await started('minute', rows(15), { senderId: await limited('minute', { perMinute: 7 }) });
  await batchOf(id, ({ counts }) => counts.sent === 7);
  await mailbag.kill();
  await mailbag.startAgain();
  const waiting = await batchOf(id, (batch) => batch.waiting?.code === 'limits-reached' && batch.waiting.fields.server === 'minute');
  expect(waiting.counts).toEqual({ sent: 7, queued: 8 });
  await mailbag.client.send('POST', `/api/batches/${id}/cancel`);
  const list = [
    ...rows(6, 'one.example.net'),
    ...rows(2, 'two.example.net').map(([, ...rest], index): [string, string, string, string] => [`D-${index}`, ...rest]),
  ];
  const other = await started('domain', list, { senderId: await limited('domain', { perDomainMinute: 3 }) });
  const held = await batchOf(other, ({ counts }) => counts.sent === 5);
  expect(held.counts).toEqual({ sent: 5, queued: 3 });
  expect(
    (await copiesOf(mailbag.client, other)).filter(({ state, address }) => state === 'queued' && address.endsWith('one.example.net')),
  ).toHaveLength(3);
});

test('outside the hours of sending, and before its time, nothing leaves', async () => {
  const weekday = new Date().getDay() || 7;
  // Not tomorrow: midnight may pass meanwhile.
  const later = ((weekday + 2) % 7) + 1;
  await setServer({ hours: { from: 0, until: 1, days: [later] } });
  const id = await started('hours', rows(3));
  const waiting = await batchOf(id, (batch) => batch.waiting?.code === 'hours-begin' && batch.waiting.fields.server === 'Post office');
  expect(waiting.counts).toEqual({ queued: 3 });
  await setServer({});
  await batchOf(id, ({ state }) => state === 'done');
  const timed = await started('start', rows(2), { startAt: new Date(Date.now() + 15_000).toISOString() });
  const early = await batchOf(timed, (batch) => batch.waiting?.code === 'sending-begins');
  expect(early.counts).toEqual({ queued: 2 });
  expect((await batchOf(timed, ({ state }) => state === 'done')).counts).toEqual({ sent: 2 });
});

test('a batch is stopped while it is sent, and goes on later with nothing twice', async () => {
  await setServer({ connections: 1, perMinute: 60 });
  const id = await started('stop', rows(40));
  await batchOf(id, ({ counts }) => (counts.sent ?? 0) > 3);
  await mailbag.client.send('POST', `/api/batches/${id}/pause`);
  const stopped = await batchOf(id, ({ counts }) => (counts.sending ?? 0) === 0);
  await new Promise((done) => setTimeout(done, 1500));
  expect((await batchOf(id, () => true)).counts).toEqual(stopped.counts);
  await setServer({});
  await mailbag.client.send('POST', `/api/batches/${id}/resume`);
  expect((await batchOf(id, ({ state }) => state === 'done')).counts).toEqual({ sent: 40 });
  const letters = (await office.letters()).filter(({ attachments }) => attachments.length > 0);
  expect(new Set(letters.map(({ messageId }) => messageId)).size).toBe(letters.length);
});

test('a clock that is set back holds nothing up for long', async () => {
  await office.behave('mood=busy');
  const id = await started('clock', rows(4));
  await batchOf(id, (batch) => (batch.counts.retrying ?? 0) > 0);
  await mailbag.kill();
  // As if everything so far had happened three days ahead of the clock that runs now.
  const ahead = new Date(Date.now() + 3 * 86_400_000).toISOString();
  mailbag.change("UPDATE delivery SET nextTryAt = ?, updatedAt = ? WHERE state IN ('queued', 'retrying')", [ahead, ahead]);
  mailbag.change('UPDATE mail_server SET restUntil = ?', [ahead]);
  await office.behave('mood=well');
  await mailbag.startAgain();
  expect((await batchOf(id, ({ state }) => state === 'done')).counts).toEqual({ sent: 4 });
});
