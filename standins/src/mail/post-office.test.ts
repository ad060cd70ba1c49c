import { connect } from 'node:net';
import type { Server, Socket } from 'node:net';
import type { AddressInfo } from 'node:net';
import { ImapFlow } from 'imapflow';
import nodemailer from 'nodemailer';
import type { Transporter } from 'nodemailer';
import { ImapBox, imapServer } from './imap.js';
import { Mailbox } from './mailbox.js';
import { PostOfficeServer } from './smtp.js';

/** The stand-in post office, spoken to by programs that are not ours: nodemailer, imapflow, and bare lines of RFC 5321 and RFC 9051. */
const box = new ImapBox();
let mailbox: Mailbox;
let office: PostOfficeServer;
let imap: Server;
let smtpPort: number;
let imapPort: number;
beforeAll(async () => {
  mailbox = new Mailbox();
  office = new PostOfficeServer(mailbox, box);
  office.replyAfter = 10;
  smtpPort = await office.listen(0);
  imap = imapServer(box);
  await new Promise<void>((done) => imap.listen(0, '127.0.0.1', done));
  imapPort = (imap.address() as AddressInfo).port;
});
afterAll(async () => {
  imap.close();
  await new Promise<void>((done) => office.smtp.close(done));
  (office as unknown as { front: Server }).front.close();
});
beforeEach(() => void (office.mood = 'well'));

/** A conversation in lines; each call sends one and waits for the whole reply (RFC 5321, 4.2.1: a hyphen behind the code means that more follows). */
async function conversation(port = smtpPort): Promise<{ reply: (line?: string) => Promise<string>; socket: Socket }> {
  const socket = connect(port, '127.0.0.1');
  let buffered = '';
  let wake = (): void => undefined;
  socket.on('data', (chunk: Buffer) => ((buffered += chunk.toString('latin1')), wake()));
  socket.on('close', () => ((buffered += '\r\n'), wake()));
  socket.on('error', () => undefined);
  const reply = async (line?: string): Promise<string> => {
    if (line !== undefined) socket.write(`${line}\r\n`);
    for (;;) {
      const whole = /^(?:\d{3}-[^\r\n]*\r\n)*(?:\d{3} [^\r\n]*)?\r\n/.exec(buffered);
      if (whole) {
        buffered = buffered.slice(whole[0].length);
        return whole[0].trim();
      }
      await new Promise<void>((done) => (wake = done));
    }
  };
  return { reply, socket };
}
const transport = (more: object = {}): Transporter =>
  nodemailer.createTransport({ host: '127.0.0.1', port: smtpPort, secure: false, ignoreTLS: true, ...more } as never);
const send = (to: string, more: object = {}): Promise<{ response: string }> =>
  transport().sendMail({ from: 'office@larkmere.example', to, subject: `For ${to}`, text: 'Hello', ...more }) as Promise<{
    response: string;
  }>;
const until = async (isTrue: () => boolean): Promise<void> => {
  for (let tries = 0; !isTrue(); tries++) {
    if (tries > 500) throw new Error('It did not come');
    await new Promise((done) => setTimeout(done, 10));
  }
};

test('a message is taken with its envelope, its attachment and their digest', async () => {
  const { response } = await send('ada@example.org', {
    attachments: [{ filename: 'Zoë.pdf', content: Buffer.from('%PDF-1.7'), contentType: 'application/pdf' }],
  });
  expect(response).toMatch(/^250 2\.0\.0/);
  const taken = mailbox.received.at(-1)!;
  expect(taken).toMatchObject({ to: 'ada@example.org', returnPath: 'office@larkmere.example', subject: 'For ada@example.org' });
  // SHA-256 of “%PDF-1.7”, by another program (sha256sum).
  expect(taken.attachments).toEqual([
    { name: 'Zoë.pdf', type: 'application/pdf', size: 8, sha256: '86edbaa24831badfa0a8b04bb410141e2ee4182b6d0014493fe262a7a331c20b' },
  ]);
});

test.each([
  ['unknown.ada@example.org', 550, '5.1.1'],
  ['nobody@example.org', 550, '5.1.1'],
  ['full@example.org', 452, '4.2.2'],
  ['later.ada@example.org', 451, '4.7.1'],
])('%s is refused with %i and %s (RFC 3463)', async (to, code, enhanced) => {
  await expect(send(to)).rejects.toMatchObject({ responseCode: code, response: expect.stringContaining(enhanced) });
});

test('“later” is taken at the third try', async () => {
  const to = 'later.ben@example.org';
  await expect(send(to)).rejects.toMatchObject({ responseCode: 451 });
  await expect(send(to)).rejects.toMatchObject({ responseCode: 451 });
  expect((await send(to)).response).toMatch(/^250/);
});

test.each([
  ['drop.ada@example.org', true],
  ['cut.ada@example.org', false],
])('%s: the connection breaks; whether the message was kept: %s', async (to, isStored) => {
  await expect(send(to, { text: 'x'.repeat(100_000) })).rejects.toThrow();
  await until(() => !isStored || mailbox.received.some((one) => one.to === to));
  expect(mailbox.received.some((one) => one.to === to)).toBe(isStored);
});

test('a wrong password is refused as RFC 4954 has it, any other one goes', async () => {
  await expect(transport({ auth: { user: 'office', pass: 'wrong' } }).verify()).rejects.toMatchObject({ responseCode: 535 });
  await expect(transport({ auth: { user: 'office', pass: 'right' } }).verify()).resolves.toBe(true);
});

test('in a busy mood it takes nothing, in others it does not even greet as a mail server', async () => {
  office.mood = 'busy';
  await expect(send('ada@example.org')).rejects.toMatchObject({ responseCode: 421 });
  office.mood = 'garbage';
  const { socket } = await conversation();
  const first = await new Promise<string>((done) => socket.once('data', (chunk: Buffer) => done(chunk.toString())));
  expect(first).toMatch(/^HTTP/);
});

test('bare lines of RFC 5321: greeting, a wrong order, an empty return path', async () => {
  const { reply, socket } = await conversation();
  expect(await reply()).toMatch(/^220 post-office\.test/);
  expect(await reply('RCPT TO:<ada@example.org>')).toMatch(/^503/);
  expect(await reply('EHLO here.example')).toMatch(/250[- ]post-office\.test/);
  expect(await reply('MAIL FROM:<>')).toMatch(/^250/);
  expect(await reply('RCPT TO:<gone.ada@example.org>')).toMatch(/^250/);
  expect(await reply('DATA')).toMatch(/^354/);
  expect(await reply('Subject: report\r\n\r\n..one dot\r\n.')).toMatch(/^250/);
  expect(await reply('QUIT')).toMatch(/^221/);
  socket.destroy();
  const taken = mailbox.received.at(-1)!;
  expect(taken).toMatchObject({ returnPath: '', subject: 'report' });
  // RFC 5321, 4.5.2: a dot that was doubled on the way is one again.
  expect((await mailbox.open(taken.id))!.text.trim()).toBe('.one dot');
});

describe('what comes back', () => {
  const words = ['gone', 'stuffed', 'waiting', 'away', 'words'] as const;
  test.each(words)('%s: one message in the mailbox, read by imapflow, unseen until it is fetched', async (word) => {
    const before = box.messages.length;
    await send(`${word}.ada@example.org`);
    await until(() => box.messages.length > before);
    const client = new ImapFlow({
      host: '127.0.0.1',
      port: imapPort,
      secure: false,
      auth: { user: 'bounces', pass: 'right' },
      logger: false,
    });
    await client.connect();
    const lock = await client.getMailboxLock('INBOX');
    try {
      const unseen = (await client.search({ seen: false }, { uid: true })) || [];
      const uid = unseen.at(-1)!;
      const message = await client.fetchOne(String(uid), { source: true }, { uid: true });
      const source = (message && message.source ? message.source : Buffer.alloc(0)).toString();
      expect(source).toMatch(/^Return-Path: <>/);
      const status = {
        gone: /Status: 5\.1\.1/,
        stuffed: /Status: 4\.2\.2/,
        waiting: /Action: delayed/,
        away: /Auto-Submitted: auto-replied/,
        words: /550 5\.1\.1/,
      }[word];
      expect(source).toMatch(status);
      // RFC 3464, 2: a report has a part for machines; notes by people and old servers have none.
      expect(/message\/delivery-status/.test(source)).toBe(!['away', 'words'].includes(word));
      await client.messageFlagsAdd(String(uid), ['\\Seen'], { uid: true });
      expect((await client.search({ seen: false }, { uid: true })) || []).not.toContain(uid);
    } finally {
      lock.release();
      await client.logout();
    }
  });
  test('nothing comes back for a message that is itself a report (RFC 5321, 4.5.5)', async () => {
    const before = box.messages.length;
    await transport().sendMail({ envelope: { from: '', to: ['gone.ben@example.org'] }, raw: 'Subject: report\r\n\r\nx' });
    await new Promise((done) => setTimeout(done, 100));
    expect(box.messages.length).toBe(before);
  });
});

test('IMAP: a wrong password, a folder that is not there, a command that is not known', async () => {
  const client = new ImapFlow({
    host: '127.0.0.1',
    port: imapPort,
    secure: false,
    auth: { user: 'bounces', pass: 'wrong' },
    logger: false,
  });
  await expect(client.connect()).rejects.toMatchObject({ authenticationFailed: true });
  const socket = connect(imapPort, '127.0.0.1');
  const lines: string[] = [];
  socket.on('data', (chunk: Buffer) => void lines.push(...chunk.toString().split('\r\n').filter(Boolean)));
  socket.write('a SELECT Elsewhere\r\nb FROBNICATE\r\nc NOOP\r\n');
  await until(() => lines.some((one) => one.startsWith('c ')));
  expect(lines.filter((one) => /^[abc] /.test(one))).toEqual([
    'a NO [NONEXISTENT] no such folder',
    'b BAD FROBNICATE is not known here',
    'c OK NOOP done',
  ]);
  socket.destroy();
});
