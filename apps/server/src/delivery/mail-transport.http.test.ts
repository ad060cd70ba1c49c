import { PostOffice } from '../../../../testing/running-mailbag.js';
import { MailTransport } from './mail-transport.js';
import type { Outcome } from './outcome.js';
import type { OutgoingMessage } from './outgoing-message.js';

let office: PostOffice;
beforeAll(async () => {
  office = await PostOffice.open();
});
afterAll(() => office.close());

const transportTo = (connections: number): MailTransport =>
  new MailTransport({
    id: 1,
    name: 'Post',
    host: '127.0.0.1',
    port: office.smtp,
    security: 'none',
    checkCertificate: true,
    user: null,
    password: null,
    limits: {},
    connections,
    limit: 1e6,
    hours: null,
    restUntil: null,
  } as never);
const messageTo = (address: string): OutgoingMessage => ({
  messageId: `<${address.replace('@', '.at.')}@larkmere.example>`,
  from: { id: 1, serverId: 1, name: 'Office', address: 'office@larkmere.example', replyTo: null, dkim: null },
  returnPath: 'bounces@larkmere.example',
  to: [{ name: '', address }],
  copyTo: [],
  blindCopyTo: [],
  subject: 'Your form',
  text: 'Here it is.',
  html: '<p>Here it is.</p>',
  headers: {},
  attachments: [],
});

test('when it is closed, what has begun to leave is finished and everything else is given back, unharmed', async () => {
  const transport = transportTo(1);
  const handed: string[] = [];
  const send = (address: string): Promise<Outcome> =>
    transport.send(messageTo(address), () => {
      handed.push(address);
      return Promise.resolve();
    });
  expect((await send('first@example.org')).kind).toBe('accepted');
  // The next one waits three seconds for the server's word on its recipient, two more wait for the connection.
  const waiting = ['slow.a@example.org', 'fine.b@example.org', 'fine.c@example.org'].map(send);
  await new Promise((done) => setTimeout(done, 300));
  transport.close();
  for (const outcome of await Promise.all([...waiting, send('late@example.org')]))
    expect(outcome).toEqual({ kind: 'given-back', detail: { code: 'sending-stopped', fields: {} } });
  expect(handed).toEqual(['first@example.org']);
  expect((await office.letters()).map(({ to }) => to)).toEqual(['first@example.org']);
});

test('a message in the middle of leaving is finished when it is closed', async () => {
  const transport = transportTo(1);
  let close = (): void => undefined;
  const opened = new Promise<void>((done) => (close = done));
  const sending = transport.send(messageTo('middle@example.org'), () => {
    close();
    return Promise.resolve();
  });
  await opened;
  transport.close();
  expect((await sending).kind).toBe('accepted');
});
