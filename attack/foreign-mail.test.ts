import { createTransport } from 'nodemailer';
import { connect } from 'node:net';
import type { ImapMailbox } from '../testing/foreign-mailbox.js';
import { foreignMailbox } from '../testing/foreign-mailbox.js';
import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';
import { longestWait, residentMegabytes } from '../testing/watching.js';
import { startBatch } from '../demo/src/start-batch.js';

/** Anybody may write to the bounce mailbox. Nothing that comes there keeps others waiting, ends the server, or moves a copy that is not meant. */
let office: PostOffice;
let mailbox: ImapMailbox;
const mailbag = new RunningMailbag({ MAILBAG_INBOUND_PORT: '0', MAILBAG_MAILBOX_SECONDS: '1' });
let transport: ReturnType<typeof createTransport>;
let copy: CopyRow & { token: string };

beforeAll(async () => {
  office = await PostOffice.open();
  mailbox = await foreignMailbox();
  await (await mailbag.start()).setUp(office);
  await mailbag.client.send('PUT', '/api/bounces', settings({}));
  transport = createTransport({ host: '127.0.0.1', port: await mailbag.inboundPort(), secure: false, ignoreTLS: true });
  const { mailing } = await smallMailing(mailbag.client, [['P-1', 'Quist', 'fine.quist@example.org', 'yes']], { folder: 'bounce' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const [letter] = await office.letters();
  copy = { ...(await copiesOf(mailbag.client, id))[0]!, token: /\+(\w{20})@/.exec(letter!.returnPath)![1]! };
});
afterAll(async () => {
  transport?.close();
  await mailbag.close();
  await office.close();
  await mailbox.close();
});
const settings = (more: object): object => ({
  address: 'bounces@larkmere.example',
  host: '',
  port: mailbox.port,
  tls: false,
  checkCertificate: false,
  user: 'bounces',
  password: 'x',
  folder: 'INBOX',
  smtpPort: 0,
  ...more,
});

const bounceAddress = (): string => `bounces+${copy.token}@larkmere.example`;
const bring = (raw: string, from = '', to = bounceAddress()): Promise<unknown> => transport.sendMail({ envelope: { from, to: [to] }, raw });
const state = async (): Promise<string> => (await mailbag.client.get<CopyRow>(`/api/copies/${copy.id}`)).state;
const head = (more = ''): string =>
  `From: MAILER-DAEMON@mx.example\r\nSubject: failed ${Math.random()}\r\nMessage-ID: <${Math.random()}@mx.example>\r\n${more}`;

const KB = 1000;
const bombs: [what: string, raw: () => string][] = [
  ['a row of addresses', () => `${head()}\r\n${'a@'.repeat(20 * KB)}`],
  ['an address without an end', () => `${head()}\r\na@${'a.'.repeat(100 * KB)}`],
  ['one line of brackets', () => `${head()}\r\n${'<a@a.a'.repeat(50 * KB)}`],
  ['a header of half a megabyte', () => `${head(`References: ${'<a@b> '.repeat(90 * KB)}\r\n`)}\r\nx`],
  ['ten thousand headers', () => `${head(Array.from({ length: 10 * KB }, (_, at) => `X-${at}: y\r\n`).join(''))}\r\nx`],
  ['ten thousand recipients', () => `${head(`To: ${'a@example.org, '.repeat(10 * KB)}a@b.org\r\n`)}\r\nx`],
  ['nested comments in an address', () => `${head(`To: ${'('.repeat(50 * KB)}\r\n`)}\r\nx`],
  [
    'a thousand parts in one another',
    () =>
      `${head(Array.from({ length: 1 }, () => 'Content-Type: multipart/mixed; boundary="b0"\r\n').join(''))}\r\n${Array.from({ length: KB }, (_, at) => `--b${at}\r\nContent-Type: multipart/mixed; boundary="b${at + 1}"\r\n\r\n`).join('')}`,
  ],
  ['half a megabyte of HTML', () => `${head('Content-Type: text/html\r\n')}\r\n${'<div>'.repeat(100 * KB)}`],
  ['links without an end', () => `${head()}\r\n${'http://a.a/'.repeat(50 * KB)}`],
  [
    'a status without an end',
    () =>
      `${head('Content-Type: multipart/report; boundary="b"\r\n')}\r\n--b\r\nContent-Type: message/delivery-status\r\n\r\n${'Final-Recipient: rfc822;((((( \r\n\r\n'.repeat(20 * KB)}`,
  ],
  ['encoded words in one another', () => `${head(`Subject: ${'=?utf-8?q?'.repeat(30 * KB)}\r\n`)}\r\nx`],
  ['base64 that is none', () => `${head('Content-Transfer-Encoding: base64\r\n')}\r\n${'=/+'.repeat(200 * KB)}`],
];

test.each(bombs)('%s comes through the port: others go on, and it is taken or listed', async (_, raw) => {
  const wait = await longestWait(mailbag.address, bring(raw()));
  expect(wait).toBeLessThan(1000);
  expect(residentMegabytes(mailbag.pid)).toBeLessThan(700);
});

test('the same messages come through the mailbox, are each taken once, and the server starts again over them at once', async () => {
  for (const [, raw] of bombs) mailbox.put(raw());
  await mailbag.client.send('PUT', '/api/bounces', settings({ host: '127.0.0.1' }));
  const seen = async (): Promise<number> => {
    await mailbag.client.send('POST', '/api/bounces/look');
    return mailbox.unseen();
  };
  const wait = await longestWait(
    mailbag.address,
    (async () => {
      while ((await seen()) > 0) await new Promise((done) => setTimeout(done, 200));
    })(),
  );
  expect(wait).toBeLessThan(1000);
  await mailbag.kill();
  await mailbag.startAgain();
  await mailbag.client.send('POST', '/api/bounces/look');
  expect(mailbox.unseen()).toBe(0);
  await mailbag.client.send('PUT', '/api/bounces', settings({}));
  transport.close();
  transport = createTransport({ host: '127.0.0.1', port: await mailbag.inboundPort(), secure: false, ignoreTLS: true });
});

const report = (more: string): string =>
  [
    head('Content-Type: multipart/report; report-type=delivery-status; boundary="B"\r\n'),
    '--B',
    'Content-Type: message/delivery-status',
    '',
    'Reporting-MTA: dns; mx.example.net',
    '',
    'Final-Recipient: rfc822; fine.quist@example.org',
    'Action: failed',
    'Status: 5.1.1',
    'Diagnostic-Code: smtp; 550 5.1.1 unknown user',
    '',
    more,
    '--B--',
    '',
  ].join('\r\n');

test.each([
  ['names an address only', () => bring(report(''), '', 'bounces@larkmere.example')],
  ['comes from somebody', () => bring(report(''), 'mallory@example.net')],
  [
    'names the message, but not its token',
    async () => {
      const { delivery } = await mailbag.client.get<{ delivery: { messageId: string } }>(`/api/copies/${copy.id}`);
      await bring(
        report(`--B\r\nContent-Type: text/rfc822-headers\r\n\r\nMessage-ID: ${delivery.messageId}\r\n`),
        '',
        'bounces@larkmere.example',
      );
    },
  ],
])('a report that %s moves no copy and waits for a person’s word', async (_, forge) => {
  const open = async (): Promise<number> =>
    (await mailbag.client.get<{ doubt: string | null; settled: string | null }[]>('/api/bounces/reports')).filter(
      ({ doubt, settled }) => doubt && !settled,
    ).length;
  const before = await open();
  await forge();
  expect(await open()).toBe(before + 1);
  expect(await state()).toBe('sent');
});

test('a token that is nobody’s is not taken', async () => {
  await expect(bring(report(''), '', `bounces+${'0'.repeat(20)}@larkmere.example`)).rejects.toThrow('550 5.1.1');
});

test('a message without an end takes no memory', async () => {
  const before = residentMegabytes(mailbag.pid);
  const socket = connect(await mailbag.inboundPort(), '127.0.0.1');
  await new Promise((done) => socket.once('data', done));
  for (const line of ['EHLO x', 'MAIL FROM:<>', `RCPT TO:<${bounceAddress()}>`, 'DATA']) {
    socket.write(`${line}\r\n`);
    await new Promise((done) => socket.once('data', done));
  }
  const chunk = Buffer.from(`${'x'.repeat(998)}\r\n`.repeat(1000));
  for (let megabyte = 0; megabyte < 300; megabyte++) if (!socket.write(chunk)) await new Promise((done) => socket.once('drain', done));
  expect(residentMegabytes(mailbag.pid) - before).toBeLessThan(150);
  socket.write('\r\n.\r\n');
  const greeting = await new Promise<Buffer>((done) => socket.once('data', done));
  expect(greeting.toString()).toMatch(/^552 /);
  socket.destroy();
});

test('a real report still does what it says', async () => {
  await bring(report(''));
  expect(await state()).toBe('bounced');
});
