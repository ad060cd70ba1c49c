import type { DeskAnswer, IncomingReport } from '@mailbag/contract';
import { createTransport } from 'nodemailer';
import { DovecotServer } from '../../../../testing/imap-server.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
const mailbag = new RunningMailbag({ MAILBAG_INBOUND_PORT: '0' });
const mailbox = (port: number, more: object = {}) => ({
  address: 'bounces@larkmere.example',
  host: '127.0.0.1',
  port,
  tls: false,
  checkCertificate: false,
  user: 'bounces',
  password: 'secret',
  folder: 'INBOX',
  smtpPort: 0,
  ...more,
});
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  await mailbag.client.send('PUT', '/api/bounces', mailbox(0, { host: '' }));
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

interface Copy {
  id: number;
  state: string;
  trouble: string | null;
  troubleCode: string | null;
  events: { event: string; detail: string | null; who: string }[];
  delivery: { messageId: string } | null;
}
/** Mails one copy each and waits until nothing moves any more. @returns the copies by the first word of their addresses */
async function mailed(folder: string, names: readonly string[]): Promise<{ batch: number; of: (name: string) => Promise<Copy> }> {
  const { client } = mailbag;
  const rows = names.map((name, index): [string, string, string, string] => [`B-${index}`, `T ${index}`, `${name}.t@example.org`, 'no']);
  const { mailing } = await smallMailing(client, rows, { folder });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  return {
    batch: id,
    async of(name) {
      const row = (await copiesOf(client, id)).find(({ address }) => address === `${name}.t@example.org`)!;
      return client.get<Copy>(`/api/copies/${row.id}`);
    },
  };
}
const counts = (batch: number, wanted: Record<string, number>): Promise<Batch> =>
  mailbag.client.until<Batch>(`/api/batches/${batch}`, ({ counts: now }) =>
    Object.entries(wanted).every(([state, count]) => (now[state] ?? 0) === count),
  );

const all = ['gone', 'stuffed', 'waiting', 'away', 'words', 'plain'] as const;

async function assertSorted({ batch, of }: Awaited<ReturnType<typeof mailed>>): Promise<void> {
  await counts(batch, { bounced: 3, sent: 3 });
  expect(await of('gone')).toMatchObject({ state: 'bounced', trouble: 'address', troubleCode: '5.1.1' });
  expect((await of('gone')).events[0]).toMatchObject({
    event: 'refuse',
    who: 'Incoming mail',
    detail: expect.stringMatching(/550 5\.1\.1 .*there is no such mailbox, for good/),
  });
  expect(await of('stuffed')).toMatchObject({ state: 'bounced', trouble: 'mailbox', troubleCode: '4.2.2' });
  expect((await of('stuffed')).events[0]!.detail).toMatch(/for now/);
  expect(await of('words')).toMatchObject({ state: 'bounced', troubleCode: '5.1.1' });
  const waiting = await mailbag.client.until<Copy>(`/api/copies/${(await of('waiting')).id}`, ({ events }) => events[0]!.event === 'delay');
  expect(waiting.state).toBe('sent');
  // Out of office is an answer of a machine, no bounce (RFC 3834).
  const away = await mailbag.client.until<Copy>(`/api/copies/${(await of('away')).id}`, ({ events }) => events[0]!.event === 'report');
  expect(away).toMatchObject({
    state: 'sent',
    events: [{ detail: { code: 'answer-came', fields: { subject: 'Out of office: back on Monday' } } }, {}, {}, {}, {}],
  });
  expect((await of('plain')).state).toBe('sent');
}

test('bounces that come to the own port are led to their copies, soft and hard told apart', async () => {
  await office.behave(`reports=${await mailbag.inboundPort()}&after=100`);
  await assertSorted(await mailed('port', all));
});

test('bounces that come to a mailbox are read by IMAP, once', async () => {
  await office.behave('reports=0&after=100');
  const batch = await mailed('imap', all);
  await mailbag.client.send('PUT', '/api/bounces', mailbox(office.imap));
  for (let looks = 0; looks < 20; looks++) {
    await mailbag.client.send('POST', '/api/bounces/look');
    if (((await mailbag.client.get<Batch>(`/api/batches/${batch.batch}`)).counts.bounced ?? 0) === 3) break;
    await new Promise((done) => setTimeout(done, 100));
  }
  await assertSorted(batch);
  const { lastLook } = await mailbag.client.get<{ lastLook: { ok: boolean } }>('/api/bounces');
  expect(lastLook.ok).toBe(true);
  const wrong = await mailbag.client.send<{ lastLook: { ok: boolean; detail: string } }>(
    'PUT',
    '/api/bounces',
    mailbox(office.imap, { password: 'wrong' }),
  );
  expect(wrong.lastLook).toMatchObject({ ok: false, detail: { code: 'mailbox-refused' } });
});

/** A report as another mail system writes it, without a token, about a Message-ID (RFC 3464). */
const report = (messageId: string, address: string): string =>
  [
    'Return-Path: <>',
    'From: MAILER-DAEMON@mx.example.net (Mail Delivery Subsystem)',
    'To: <office@larkmere.example>',
    'Subject: Returned mail: user unknown',
    `Message-ID: <${Math.abs(address.length)}.returned@mx.example.net>`,
    'MIME-Version: 1.0',
    'Content-Type: multipart/report; report-type=delivery-status; boundary="B"',
    '',
    '--B',
    'Content-Type: text/plain',
    '',
    'The following address had permanent fatal errors.',
    '',
    '--B',
    'Content-Type: message/delivery-status',
    '',
    'Reporting-MTA: dns; mx.example.net',
    'Arrival-Date: Fri, 15 Jan 2027 10:00:00 +0000',
    '',
    `Final-Recipient: RFC822; ${address}`,
    'Action: failed',
    'Status: 5.2.1',
    'Diagnostic-Code: SMTP; 550 5.2.1 mailbox disabled',
    '',
    '--B',
    'Content-Type: message/rfc822',
    '',
    `Message-ID: ${messageId}`,
    'From: Office <office@larkmere.example>',
    'Subject: Plot',
    '',
    'Dear',
    '--B--',
    '',
  ].join('\r\n');

(DovecotServer.isThere() ? test : test.skip)(
  'a mailbox of dovecot is read, and a report without our token waits for a person’s word',
  async () => {
    const dovecot = await DovecotServer.open();
    try {
      const batch = await mailed('dovecot', ['one', 'two']);
      const one = await batch.of('one');
      dovecot.deliver(report(one.delivery!.messageId, 'one.t@example.org'), 'a');
      dovecot.deliver(
        'From: Ann <ann@example.org>\r\nSubject: Thanks\r\nMessage-ID: <x@y.example>\r\n\r\nMine came, thank you. 550 kisses.\r\n',
        'b',
      );
      const answer = await mailbag.client.send<{ lastLook: { ok: boolean; detail: string } }>('PUT', '/api/bounces', mailbox(dovecot.port));
      expect(answer.lastLook).toEqual({ at: expect.any(String), ok: true, detail: { code: 'mailbox-read', fields: { messages: 2 } } });
      // It names the message, which everybody knows who has it.
      expect(await batch.of('one')).toMatchObject({
        state: 'sent',
        events: [{ event: 'report', detail: { code: 'report-doubted' } }, {}, {}, {}, {}],
      });
      const doubtful = async () =>
        (await mailbag.client.get<IncomingReport[]>('/api/bounces/reports')).filter(({ doubt, settled }) => doubt && settled === null);
      const [open] = await doubtful();
      expect(open).toMatchObject({ kind: 'bounce', subject: 'Returned mail: user unknown', copyId: one.id });
      expect((await mailbag.client.get<DeskAnswer>('/api/desk')).needs).toContainEqual(
        expect.objectContaining({ kind: 'reports', count: 1 }),
      );
      await mailbag.client.send('POST', `/api/bounces/reports/${open!.id}`, { isBounce: true });
      await counts(batch.batch, { bounced: 1, sent: 1 });
      expect((await batch.of('one')).events[0]).toMatchObject({
        who: 'Test Person',
        detail: expect.stringMatching(/550 5\.2\.1 mailbox disabled \(the mailbox is closed, for good\)/),
      });
      await expect(mailbag.client.send('POST', `/api/bounces/reports/${open!.id}`, { isBounce: true })).rejects.toThrow('404');
      // The same report comes once more: nothing happens twice.
      dovecot.deliver(report(one.delivery!.messageId, 'one.t@example.org'), 'c');
      await mailbag.client.send('POST', '/api/bounces/look');
      expect((await batch.of('one')).events.filter(({ event }) => event === 'refuse')).toHaveLength(1);
      expect(await doubtful()).toEqual([]);
    } finally {
      await dovecot.close();
    }
  },
  60_000,
);

test('the own port takes nothing for others, and no message that is too large', async () => {
  const port = await mailbag.inboundPort();
  const transport = createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true });
  const send = (to: string, raw: string): Promise<unknown> => transport.sendMail({ envelope: { from: '', to: [to] }, raw });
  await expect(send('somebody@example.org', 'Subject: x\r\n\r\nx')).rejects.toThrow('550 5.1.1');
  await expect(send('bounces@larkmere.example', `Subject: x\r\n\r\n${'x'.repeat(6_000_000)}`)).rejects.toThrow('552');
  transport.close();
});
