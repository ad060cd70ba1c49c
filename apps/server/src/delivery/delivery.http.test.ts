import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
// Tries follow each other within seconds, and a server that says nothing is given up soon.
const mailbag = new RunningMailbag({ MAILBAG_RETRY_PACE: '0.0005', MAILBAG_MAIL_TIMEOUT: '1500' });
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

type Copy = {
  state: string;
  address: string;
  events: { event: string; detail: string | null; who: string }[];
  delivery: { attempts: number; messageId: string } | null;
};
const copyOf = async (batch: number, plot: string): Promise<Copy & { id: number }> => {
  const row = (await copiesOf(mailbag.client, batch)).find(
    ({ file }) => file.endsWith(`/${plot}.pdf`) || file.endsWith(`/${plot} (2).pdf`),
  )!;
  return { id: row.id, ...(await mailbag.client.get<Copy>(`/api/copies/${row.id}`)) };
};

test('each recipient gets what their server lets through, and the ledger says so in the server’s own words', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(
    client,
    [
      ['M-1', 'Quist', 'quist@example.org', 'yes'],
      ['M-2', 'Bae', 'unknown.bae@example.org', 'no'],
      ['M-3', 'Ngo', 'later.ngo@example.org', 'no'],
      ['M-4', 'Brace', 'full.brace@example.org', 'no'],
      ['M-5', 'Keawe', '', 'no'],
      ['M-6', 'Drop', 'drop.me@example.org', 'no'],
      ['M-7', 'Hang', 'hang.me@example.org', 'no'],
    ],
    { folder: 'mail' },
  );
  const { id } = await startBatch<Batch>(client, mailing);
  const batch = await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(batch.counts).toEqual({ sent: 2, bounced: 3, made: 1, unconfirmed: 1 });

  expect((await copyOf(id, 'M-1')).state).toBe('sent');
  const refused = await copyOf(id, 'M-2');
  expect(refused.state).toBe('bounced');
  expect(refused.events[0]).toMatchObject({ event: 'refuse', detail: '550 5.1.1 unknown user "unknown.bae"' });
  expect(refused.delivery!.attempts).toBe(1);
  const later = await copyOf(id, 'M-3');
  expect(later.state).toBe('sent');
  expect(later.delivery!.attempts).toBe(3);
  expect(later.events.filter(({ event }) => event === 'defer')).toHaveLength(2);
  const full = await copyOf(id, 'M-4');
  expect(full.events[0]!.detail).toEqual({
    code: 'given-up',
    fields: { attempts: 8, answer: expect.stringMatching(/^452 4\.2\.2 mailbox full/) },
  });
  expect((await copyOf(id, 'M-5')).state).toBe('made');
  // The connection broke after the message had been read: nobody knows, so it is not sent again by itself.
  expect((await copyOf(id, 'M-6')).state).toBe('unconfirmed');
  expect((await copyOf(id, 'M-7')).delivery!.attempts).toBe(8);

  const received = await office.letters();
  const ids = received.map(({ messageId }) => messageId);
  expect(new Set(ids).size).toBe(ids.length);
  expect(received.filter(({ to }) => to.startsWith('drop')).length).toBe(1);
  expect(received.find(({ to }) => to === 'quist@example.org')).toMatchObject({
    subject: 'Plot M-1',
    attachments: [{ name: 'M-1.pdf', type: 'application/pdf' }],
  });
});

test('a bounced copy is sent again to another address as a new message, and who did it is kept', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['N-1', 'Bae', 'unknown.bae@example.org', 'no']], { folder: 'again' });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const before = await copyOf(id, 'N-1');
  await expect(client.send('POST', `/api/copies/${before.id}/send-again`, { address: 'nonsense' })).rejects.toThrow('mail-address-refused');
  await client.send('POST', `/api/copies/${before.id}/send-again`, { address: 'bae@example.org' });
  const after = await client.until<Copy>(`/api/copies/${before.id}`, ({ state }) => state === 'sent');
  expect(after.address).toBe('bae@example.org');
  expect(after.delivery!.messageId).not.toBe(before.delivery!.messageId);
  expect(after.events.find(({ event }) => event === 'send-again')).toMatchObject({
    who: 'Test Person',
    detail: { code: 'address-corrected', fields: { from: 'unknown.bae@example.org', to: 'bae@example.org' } },
  });
  await expect(client.send('POST', `/api/copies/${before.id}/send-again`, { address: 'bae@example.org' })).rejects.toThrow('copy-law');
});

test('an unconfirmed copy is settled by a person’s word', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['U-1', 'Drop', 'drop.two@example.org', 'no']], { folder: 'settle' });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ counts }) => counts.unconfirmed === 1);
  const { id: copy } = await copyOf(id, 'U-1');
  await client.send('POST', `/api/copies/${copy}/confirm-sent`);
  expect(await client.get<Copy>(`/api/copies/${copy}`)).toMatchObject({ state: 'sent' });
});
