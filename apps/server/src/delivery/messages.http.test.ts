import { spawnSync } from 'node:child_process';
import { generateKeyPairSync } from 'node:crypto';
import { existsSync } from 'node:fs';
import { simpleParser } from 'mailparser';
import { readByOther } from '../../../../testing/other-reader.js';
import { tenancyAgreement } from '../../../../demo/src/forms/tenancy-agreement.js';
import { addMailServer, addSender, mailServer } from '../../../../demo/src/mail-set-up.js';
import { canVerifyDkim, verifyDkim } from '../../../../testing/dkim.js';
import { PythonSmtp } from '../../../../testing/python-smtp.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
const mailbag = new RunningMailbag({ MAILBAG_MAIL_TIMEOUT: '1500', MAILBAG_RETRY_PACE: '0.001', MAILBAG_INBOUND_PORT: '0' });
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

type Row = readonly [plot: string, name: string, mail: string, shed: string];
const quoted = (text: string): string => `"${text.replace(/"/g, '""')}"`;
interface Plan {
  packet: number[];
  maps: Record<string, unknown>;
  message: Record<string, unknown>;
  output: Record<string, unknown>;
}
/** A mailing whose plan is changed before it is used. */
async function mailing(rows: readonly Row[], folder: string, change: (plan: Plan) => Plan): Promise<number> {
  const { client } = mailbag;
  const { mailing: id } = await smallMailing(
    client,
    rows.map(([plot, name, mail, shed]) => [plot, quoted(name), quoted(mail), shed] as const),
    { folder },
  );
  const { version, plan } = await client.get<{ version: number; plan: Plan }>(`/api/mailings/${id}`);
  await client.send('PUT', `/api/mailings/${id}`, { version, plan: change(plan) });
  return id;
}
async function run(id: number, until: (batch: Batch) => boolean = ({ state }) => state === 'done'): Promise<Batch> {
  const { id: batch } = await startBatch<Batch>(mailbag.client, id);
  return mailbag.client.until<Batch>(`/api/batches/${batch}`, until);
}
const rawTo = async (address: string): Promise<string> =>
  office.raw((await office.letters()).filter(({ to }) => to.split(', ').includes(address)).at(-1)!.id);
const sampleOf = (
  id: number,
): Promise<{
  html: string;
  text: string;
  subject: string;
  to: string[];
  fault: string | null;
  openPassword: string | null;
  size: number;
  attachments: { name: string }[];
}> => mailbag.client.send('POST', `/api/mailings/${id}/message-sample`, { index: 0 });

test('who gets a copy once more is told which one it replaces, as the sample has shown it', async () => {
  const id = await mailing([['R-1', 'Rena', 'rena@example.org', 'no']], 'replaced', (plan) => ({
    ...plan,
    message: {
      ...plan.message,
      body: 'Dear {{ name }},{% if replaces != "" %} this replaces {{ replaces }} of {{ replaced_on }}{% else %} this is new{% endif %}.',
    },
  }));
  expect((await sampleOf(id)).text).toContain('this is new');
  const { id: first } = await run(id);
  expect(await rawTo('rena@example.org')).toContain('this is new');
  const [copy] = await copiesOf(mailbag.client, first);
  const pattern = new RegExp(`this replaces ${copy!.code} of 20\\d\\d-\\d\\d-\\d\\d\\.`);
  expect((await sampleOf(id)).text).toMatch(pattern);
  const { id: second } = await startBatch<Batch>(mailbag.client, id, 'everybody');
  await mailbag.client.until<Batch>(`/api/batches/${second}`, ({ state }) => state === 'done');
  expect(await rawTo('rena@example.org')).toMatch(pattern);
});

test('headers cannot be slipped in by data, and HTML in a name stays text', async () => {
  const id = await mailing([['H-1', 'Eve <b>x</b>', 'eve@example.org', 'no']], 'inject', (plan) => ({
    ...plan,
    message: {
      ...plan.message,
      subject: 'For {{ name }}{{ "\nBcc: all@example.org" }}',
      bodyFormat: 'html',
      body: '<p onclick="x()">Dear {{ name }}<script>alert(1)</script><a href="javascript:x()">go</a></p>',
    },
  }));
  await run(id);
  const mail = await simpleParser(await rawTo('eve@example.org'));
  expect(mail.subject).toBe('For Eve <b>x</b> Bcc: all@example.org');
  expect(mail.bcc).toBeUndefined();
  expect(mail.headers.has('bcc')).toBe(false);
  expect(mail.html).toContain('Dear Eve &lt;b&gt;x&lt;/b&gt;');
  expect(mail.html).not.toMatch(/script|onclick|javascript/);
  expect(mail.text).toContain('Dear Eve <b>x</b>');
  expect((await office.letters()).filter(({ to }) => to.includes('all@'))).toEqual([]);
});

test('a message says what it is: made by a machine, of a list, with a return path of its own (RFC 3834, RFC 2919)', async () => {
  await mailbag.client.send('PUT', '/api/bounces', {
    address: 'bounces@larkmere.example',
    host: '',
    port: 0,
    tls: false,
    checkCertificate: true,
    user: '',
    folder: '',
    smtpPort: 0,
  });
  const id = await mailing(
    [
      ['V-1', 'One', 'one@example.org', 'no'],
      ['V-2', 'Two', 'two@example.org', 'no'],
    ],
    'verp',
    (plan) => plan,
  );
  await run(id);
  const letters = (await office.letters()).filter(({ subject }) => subject.startsWith('Plot V-'));
  const paths = letters.map(({ returnPath }) => returnPath);
  for (const path of paths) expect(path).toMatch(/^bounces\+[0-9a-v]{20}@larkmere\.example$/);
  expect(new Set(paths).size).toBe(2);
  const raw = await office.raw(letters[0]!.id);
  expect(raw).toMatch(/^Auto-Submitted: auto-generated\r?$/m);
  expect(raw).toMatch(/^List-ID: <permits\.\d+\.larkmere\.example>\r?$/im);
  // swaks, a mail program that we did not write, brings a bounce to the own port.
  if (existsSync('/usr/bin/swaks')) {
    const port = String(await mailbag.inboundPort());
    const sent = spawnSync(
      'swaks',
      [
        '--server',
        '127.0.0.1',
        '--port',
        port,
        '--from',
        '<>',
        '--to',
        paths[0]!,
        '--header',
        'Subject: Undelivered',
        '--header',
        'From: MAILER-DAEMON@mx.example',
        '--body',
        `<one@example.org>: 550 5.1.1 no such user`,
      ],
      { encoding: 'utf8' },
    );
    expect(sent.stdout).toContain('250');
    const to = letters[0]!.to;
    const copy = (await copiesOf(mailbag.client, (await mailbag.client.get<Batch[]>('/api/batches'))[0]!.id)).find(
      ({ address }) => address === to,
    )!;
    await mailbag.client.until<{ state: string }>(`/api/copies/${copy.id}`, ({ state }) => state === 'bounced');
  }
  await mailbag.client.send('PUT', '/api/bounces', {
    address: '',
    host: '',
    port: 0,
    tls: false,
    checkCertificate: true,
    user: '',
    folder: '',
    smtpPort: 0,
  });
});

test('several recipients of one cell get one message, others get a copy, and who was not taken is told', async () => {
  const id = await mailing([['S-1', 'Several', 'Ann Roe <ann@example.org>; unknown.bo@example.org', 'no']], 'several', (plan) => ({
    ...plan,
    message: { ...plan.message, several: true, copyTo: 'clerk@example.org', blindCopyTo: 'file@example.org' },
  }));
  const batch = await run(id);
  expect(batch.counts).toEqual({ sent: 1 });
  const letter = (await office.letters()).filter(({ subject }) => subject === 'Plot S-1');
  expect(letter).toHaveLength(1);
  expect(letter[0]!.to.split(', ').sort()).toEqual(['ann@example.org', 'clerk@example.org', 'file@example.org']);
  const raw = await office.raw(letter[0]!.id);
  expect(raw).toMatch(/^Cc: clerk@example\.org/m);
  expect(raw).not.toContain('file@example.org');
  const [copy] = await copiesOf(mailbag.client, batch.id);
  const detail = await mailbag.client.get<{ trouble: string; events: { detail: string }[] }>(`/api/copies/${copy!.id}`);
  expect(detail.trouble).toBe('address');
  expect(detail.events[0]!.detail).toMatchObject({
    code: 'accepted-not-all',
    fields: { refused: expect.stringContaining('unknown.bo@example.org: 550 5.1.1') },
  });
});

test('a recipient who is refused for now is tried again, and the others do not get it twice', async () => {
  const id = await mailing([['S-2', 'Later', 'first@example.org, later.second@example.org', 'no']], 'partly', (plan) => ({
    ...plan,
    message: { ...plan.message, several: true },
  }));
  const batch = await run(id);
  expect(batch.counts).toEqual({ sent: 1 });
  const letters = (await office.letters()).filter(({ subject }) => subject === 'Plot S-2');
  expect(letters.map(({ to }) => to)).toEqual(['first@example.org', 'later.second@example.org']);
  expect(new Set(letters.map(({ messageId }) => messageId)).size).toBe(2);
});

test('a cell with 10,000 addresses is held back by the checks, and mails nobody', async () => {
  const cell = Array.from({ length: 10_000 }, (_, index) => `a${index}@example.org`).join(';');
  const id = await mailing(
    [
      ['M-1', 'Many', cell, 'no'],
      ['M-2', 'One', 'just.one@example.org', 'no'],
    ],
    'many',
    (plan) => ({ ...plan, message: { ...plan.message, several: true } }),
  );
  const batch = await run(id);
  expect(batch.records).toBe(1);
  expect((await office.letters()).filter(({ to }) => /^a\d+@/.test(to))).toEqual([]);
});

test('files, one combined PDF, or one zip; extra files go along; too large is told before anything leaves', async () => {
  const file = await mailbag.client.upload<{ fileId: string; name: string; size: number }>(
    '/api/mailings/extra-files',
    'House rules.txt',
    new TextEncoder().encode('Be kind.'),
  );
  const zip = await mailing([['Z-1', 'Zip', 'zip@example.org', 'no']], 'zipped', (plan) => ({
    ...plan,
    message: { ...plan.message, attach: 'zip', extraFiles: [file] },
  }));
  await run(zip);
  const parsed = await simpleParser(await rawTo('zip@example.org'));
  expect(parsed.attachments.map(({ filename, contentType }) => [filename, contentType])).toEqual([
    ['Zip.zip', 'application/zip'],
    ['House rules.txt', 'text/plain'],
  ]);
  expect(parsed.attachments[0]!.content.includes('Z-1.pdf')).toBe(true);
  const large = await mailbag.client.upload<{ fileId: string; name: string; size: number }>(
    '/api/mailings/extra-files',
    'Large.pdf',
    new Uint8Array(2_000_000).fill(65),
  );
  const [server] = await mailbag.client.get<{ id: number }[]>('/api/mail-servers');
  await mailbag.client.send('PUT', `/api/mail-servers/${server!.id}`, { ...mailServer(office.smtp), limitMb: 1 });
  const over = await mailing([['Z-2', 'Over', 'over@example.org', 'no']], 'over', (plan) => ({
    ...plan,
    message: { ...plan.message, extraFiles: [large] },
  }));
  const batch = await run(over);
  // Our own limit is nobody's bounce: the copy is set aside until a person has looked.
  expect(batch.counts).toEqual({ made: 1 });
  const [copy] = await copiesOf(mailbag.client, batch.id);
  expect((await mailbag.client.get<{ needs: object[] }>('/api/desk')).needs).toContainEqual(
    expect.objectContaining({ kind: 'set-aside', count: 1, id: over }),
  );
  expect((await mailbag.client.get<{ events: { detail: string }[] }>(`/api/copies/${copy!.id}`)).events[0]!.detail).toMatch(
    /^The message would have 2\.\d MB; “Post office” is sent 1 MB at most/,
  );
  await mailbag.client.send('PUT', `/api/mail-servers/${server!.id}`, mailServer(office.smtp));
});

test('the copies of a record go out as one PDF: all templates of the packet in their order, and nobody else’s', async () => {
  const { template } = await mailbag.client.upload<{ template: { id: number } }>('/api/templates', 'agreement.pdf', tenancyAgreement());
  const rows: Row[] = [
    ['C-1', 'Cora Combined', 'cora@example.org', 'yes'],
    ['C-2', 'Dario Together', 'dario@example.org', 'no'],
  ];
  const id = await mailing(rows, 'combined', (plan) => ({
    ...plan,
    packet: [template.id, ...plan.packet],
    maps: {
      ...plan.maps,
      [template.id]: {
        'tenancy.plot.no': { kind: 'column', column: 'Plot' },
        'tenancy.tenant.name': { kind: 'column', column: 'Name' },
        'tenancy.rent.total': { kind: 'text', text: '40' },
      },
    },
    output: { ...plan.output, file: '{{ plot }} {{ template }}.pdf' },
    message: { ...plan.message, attach: 'combined' },
  }));
  expect((await run(id)).counts).toEqual({ sent: 4 });
  for (const [plot, name, mail] of rows) {
    const { attachments } = await simpleParser(await rawTo(mail));
    expect(attachments.map(({ filename, contentType }) => [filename, contentType])).toEqual([[`${name}.pdf`, 'application/pdf']]);
    const pages = await readByOther(new Uint8Array(attachments[0]!.content));
    expect(pages.map(({ text }) => [text.includes(name), text.includes(plot), text.includes('Shed and glasshouse permit')])).toEqual([
      [true, true, false],
      [true, false, false],
      [true, true, true],
    ]);
    const others = rows.filter(([other]) => other !== plot);
    for (const [other, otherName] of others)
      for (const { text } of pages) expect(text.includes(other) || text.includes(otherName)).toBe(false);
  }
});

test('a copy with a password of its own: the message says how it opens, never the password', async () => {
  const id = await mailing([['P-1', 'Secret', 'secret@example.org', 'no']], 'password', (plan) => ({
    ...plan,
    output: { ...plan.output, openPassword: '{{ plot }}{{ name }}' },
    message: { ...plan.message, body: 'Hello.', passwordSentence: 'It opens with the number of your plot and your name, such as B-17Roe.' },
  }));
  const sample = await sampleOf(id);
  expect(sample.openPassword).toBe('P-1Secret');
  await run(id);
  const mail = await simpleParser(await rawTo('secret@example.org'));
  expect(mail.text).toContain('It opens with the number of your plot and your name');
  expect(mail.text).not.toContain('P-1Secret');
  await expect(readByOther(new Uint8Array(mail.attachments[0]!.content))).rejects.toThrow(/password/i);
});

test('the sample is what goes out, and a test message goes to whoever asks and to nobody else', async () => {
  const id = await mailing([['T-1', 'Tess', 'tess@example.org', 'no']], 'sample', (plan) => ({
    ...plan,
    message: {
      ...plan.message,
      bodyFormat: 'html',
      body: '<p>Dear <strong>{{ name }}</strong></p><ul><li>one</li></ul>',
      copyTo: 'clerk@example.org',
    },
  }));
  const sample = await sampleOf(id);
  expect(sample).toMatchObject({
    to: ['tess@example.org'],
    subject: 'Plot T-1',
    html: '<p>Dear <strong>Tess</strong></p><ul><li>one</li></ul>',
    attachments: [{ name: 'T-1.pdf' }],
  });
  expect(sample.text).toBe('Dear Tess\n\n- one');
  const before = (await office.letters()).length;
  await mailbag.client.send('POST', `/api/mailings/${id}/test-message`, { index: 0, address: 'me@larkmere.example' });
  const fresh = (await office.letters()).slice(before);
  expect(fresh.map(({ to, subject }) => [to, subject])).toEqual([['me@larkmere.example', 'Test: Plot T-1']]);
  const raw = new TextDecoder().decode(await mailbag.client.bytes(`/api/mailings/${id}/message-sample.eml?index=0`));
  const parsed = await simpleParser(raw);
  expect(parsed.subject).toBe('Plot T-1');
  await run(id);
  const sent = await simpleParser(await rawTo('tess@example.org'));
  expect([sent.html, sent.text?.trim()]).toEqual([parsed.html, parsed.text?.trim()]);
  // Bytes as they travel are told to within some lines of headers.
  expect(Math.abs(sample.size - raw.length)).toBeLessThan(2500);
});

(PythonSmtp.isThere() ? test : test.skip)(
  'an SMTP server that we did not write takes the messages, signed where a key is set',
  async () => {
    const smtp = await PythonSmtp.open();
    try {
      const server = await addMailServer(mailbag.client, smtp.port, { name: 'Python' });
      const code = async (): Promise<string> => {
        for (;;) {
          const found = smtp.taken().find(({ raw }) => /^Subject: \d{6} is/m.test(raw));
          if (found) return /^Subject: (\d{6})/m.exec(found.raw)![1]!;
          await new Promise((done) => setTimeout(done, 50));
        }
      };
      const senderId = await addSender(mailbag.client, server, 'signed@larkmere.example', code);
      const { privateKey, publicKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
      await mailbag.client.send('PUT', `/api/senders/${senderId}`, {
        serverId: server,
        name: 'Signed',
        address: 'signed@larkmere.example',
        dkimDomain: 'larkmere.example',
        dkimSelector: 'mail',
        dkimKey: privateKey.export({ type: 'pkcs8', format: 'pem' }),
      });
      const rows = Array.from({ length: 12 }, (_, index): Row => [`Y-${index}`, `Py ${index}`, `py${index}@example.org`, 'no']);
      const id = await mailing(rows, 'python', (plan) => ({ ...plan, message: { ...plan.message, senderId } }));
      expect((await run(id)).counts).toEqual({ sent: 12 });
      const taken = smtp.taken().filter(({ raw }) => /^Subject: Plot Y-/m.test(raw));
      expect(taken.map(({ to }) => to[0]).sort()).toEqual(rows.map(([, , mail]) => mail).sort());
      for (const { raw } of taken) expect(raw).toMatch(/^DKIM-Signature: v=1; a=rsa-sha256;[^]*d=larkmere\.example;[^]*s=mail/m);
      if (canVerifyDkim()) {
        for (const { raw } of taken.slice(0, 3))
          expect(verifyDkim(raw, publicKey)).toEqual({ isGood: true, asked: 'mail._domainkey.larkmere.example.' });
        // RFC 6376, 5.4: the subject and the attachment are covered.
        const { raw } = taken[0]!;
        for (const changed of [raw.replace(/^Subject: Plot/m, 'Subject: Plat'), raw.replace(/\n(JVBERi0)/, '\nKVBERi0')]) {
          expect(changed).not.toBe(raw);
          expect(verifyDkim(changed, publicKey).isGood).toBe(false);
        }
      }
    } finally {
      await smtp.close();
    }
  },
);
