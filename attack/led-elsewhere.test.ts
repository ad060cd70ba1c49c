import { createServer as createWebServer } from 'node:http';
import { createServer } from 'node:net';
import type { AddressInfo, Server, Socket } from 'node:net';
import type { ServerClient } from '../demo/src/server-client.js';
import { signedInAs } from '../testing/accounts.js';
import { RunningMailbag } from '../testing/running-mailbag.js';

/** A kept password goes only where it was meant for, whoever asks and however; and nothing of this machine is a target by itself. */
const mailbag = new RunningMailbag();
let shut: RunningMailbag;
let operator: ServerClient;
/** A server of the attacker: it takes every connection and writes down what is said. */
let heard = '';
let trap: Server;
let port: number;
/** A server that may be reached, and that sends on to the one that may not. */
const allowed = createWebServer((_, answer) => void answer.writeHead(307, { location: `http://127.0.0.1:${port}/` }).end());
const portOf = (one: { address(): unknown }): number => (one.address() as AddressInfo).port;

beforeAll(async () => {
  trap = createServer((socket: Socket) => {
    heard += 'called ';
    socket.on('error', () => undefined).on('data', (data) => (heard += data.toString('latin1')));
    socket.write('220 trap\r\n');
  });
  await new Promise<void>((done) => trap.listen(0, '127.0.0.1', done));
  port = portOf(trap);
  await new Promise<void>((done) => allowed.listen(0, '127.0.0.1', done));
  shut = new RunningMailbag({ MAILBAG_LOCAL_TARGETS: `localhost:9,127.0.0.1:${portOf(allowed)}` });
  await Promise.all([mailbag.start().then((one) => one.setUp()), shut.start().then((one) => one.setUp())]);
  operator = await signedInAs(mailbag, { role: 'operator' });
});
beforeEach(() => void (heard = ''));
afterAll(async () => {
  trap.close();
  allowed.close();
  await Promise.all([mailbag.close(), shut.close()]);
});

const refusal = (asked: Promise<unknown>): Promise<string> =>
  asked.then(
    (answer) => JSON.stringify(answer),
    (error: Error) => error.message,
  );

const server = {
  name: 'Office',
  host: '127.0.0.1',
  port: 9,
  security: 'none',
  checkCertificate: true,
  user: 'office',
  perMinute: 0,
  perHour: 0,
  perDomainMinute: 0,
  connections: 1,
  limitMb: 25,
  hours: null,
};
const mailbox = {
  address: 'bounces@larkmere.example',
  host: '127.0.0.1',
  port: 9,
  tls: false,
  checkCertificate: true,
  user: 'office',
  folder: 'INBOX',
  smtpPort: 0,
};
const register = { name: 'Files', kind: 'webdav', host: 'http://127.0.0.1:9/', port: 0, databaseName: '', table: 'copies', user: 'office' };
const register2 = { ...register, tls: false, mailings: [], paused: true };

test('a mail server that is led elsewhere asks for its password again, also when it is only tried', async () => {
  const [stored] = await mailbag.client.send<{ id: number }[]>('POST', '/api/mail-servers', { ...server, password: 'hush' });
  for (const [method, path] of [
    ['PUT', `/api/mail-servers/${stored!.id}`],
    ['POST', `/api/mail-servers/test?id=${stored!.id}`],
  ] as const)
    for (const change of [{ port }, { host: 'localhost', port }, { security: 'tls' }])
      expect(await refusal(mailbag.client.send(method, path, { ...server, ...change }))).toContain('secret-asked-again');
  expect(heard).toBe('');
  // What does not lead elsewhere needs no password; with the password it may lead anywhere.
  expect(await refusal(mailbag.client.send('PUT', `/api/mail-servers/${stored!.id}`, { ...server, perMinute: 5 }))).toContain(
    '"perMinute":5',
  );
  await mailbag.client.send('PUT', `/api/mail-servers/${stored!.id}`, { ...server, port, password: 'hush' });
  const lines = await mailbag.client.get<{ action: string; subject: string; detail: string }[]>('/api/history?text=elsewhere');
  expect(lines).toMatchObject([
    { subject: 'Office', detail: `127.0.0.1:9 (secured where offered) → 127.0.0.1:${port} (secured where offered)` },
  ]);
});

test('a bounce mailbox and a register that are led elsewhere ask for their passwords again', async () => {
  await mailbag.client.send('PUT', '/api/bounces', { ...mailbox, password: 'hush' });
  expect(await refusal(mailbag.client.send('PUT', '/api/bounces', { ...mailbox, port }))).toContain('secret-asked-again');
  const [stored] = await mailbag.client.send<{ id: number }[]>('POST', '/api/registers', { ...register2, password: 'hush' });
  for (const change of [{ host: `http://127.0.0.1:${port}/` }, { kind: 'postgres', host: '127.0.0.1', port }])
    for (const paused of [true, false])
      expect(await refusal(mailbag.client.send('PUT', `/api/registers/${stored!.id}`, { ...register2, ...change, paused }))).toContain(
        'secret-asked-again',
      );
  expect(heard).toBe('');
});

test('an operator leads no database server anywhere, and reads a file as before', async () => {
  const database = { name: 'Theirs', kind: 'postgres', host: '127.0.0.1', port, databaseName: 'x', user: 'x', password: 'x', tls: false };
  for (const path of ['/api/connections', '/api/connections/test'])
    expect(await refusal(operator.send('POST', path, database))).toContain('account-not-allowed');
  expect(heard).toBe('');
});

test('what stands on this machine is no target, by address, by name or by another spelling, unless it is allowed', async () => {
  const hosts = ['127.0.0.1', 'localhost', '127.1', '2130706433', '0.0.0.0', '[::1]', '::ffff:127.0.0.1', '169.254.169.254', '/tmp/x.sock'];
  for (const host of hosts) {
    const wanted: [string, object][] = [
      ['/api/mail-servers', { ...server, host, port }],
      ['/api/connections', { name: 'x', kind: 'postgres', host, port, databaseName: 'x', user: 'x', password: 'x', tls: false }],
      ['/api/connections', { name: 'x', kind: 'mysql', host, port, databaseName: 'x', user: 'x', password: 'x', tls: false }],
    ];
    if (!host.startsWith('/'))
      wanted.push(
        ['/api/printers', { name: 'x', uri: `ipp://${host.includes(':') && !host.startsWith('[') ? `[${host}]` : host}:${port}/ipp` }],
        ['/api/registers', { ...register2, host: `http://${host.includes(':') && !host.startsWith('[') ? `[${host}]` : host}:${port}/` }],
      );
    for (const [path, body] of wanted)
      expect([host, path, await refusal(shut.client.send('POST', path, body))].join(' ')).toContain('target-local');
  }
  expect(heard).toBe('');
  // Only this one is allowed here.
  expect(await refusal(shut.client.send('POST', '/api/mail-servers', { ...server, host: 'localhost', port: 9 }))).toContain('"localhost"');
});

test('a server that may be reached cannot send Mailbag on to one that may not', async () => {
  const answer = await refusal(
    shut.client.send('POST', '/api/registers', {
      ...register2,
      host: `http://127.0.0.1:${portOf(allowed)}/`,
      paused: false,
      password: 'hush',
    }),
  );
  expect(answer).toContain('register-failed');
  expect(heard).toBe('');
});
