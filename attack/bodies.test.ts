import { connect } from 'node:net';
import { PATIENCE } from '../testing/patience.js';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { longestWait } from '../testing/watching.js';

/** What strangers may send: little, flat, and only where a stranger has any business. Nothing that they send keeps the others waiting. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

const headers = { 'content-type': 'application/json', 'x-mailbag': '1' };
const post = (path: string, body: string | Uint8Array<ArrayBuffer>, more: Record<string, string> = {}): Promise<Response> =>
  fetch(mailbag.address + path, { method: 'POST', headers: { ...headers, ...more }, body });

const nested = (levels: number): string => '['.repeat(levels) + ']'.repeat(levels);
test.each([
  ['unclosed brackets', '['.repeat(5_000_000)],
  ['nested arrays', nested(2_000_000)],
  ['nested objects', `${'{"a":'.repeat(900_000)}1${'}'.repeat(900_000)}`],
  ['nested arrays in a password', `{"email":"a@b.org","password":${nested(1_500_000)}}`],
])('%s to the sign-in are refused at once, and others go on', async (_, body) => {
  let status = 0;
  const wait = await longestWait(
    mailbag.address,
    post('/api/account/sign-in', body).then((answer) => (status = answer.status)),
  );
  expect(status).toBe(413);
  expect(wait).toBeLessThan(1000);
});

test.each([
  ['brackets just within the size', `{"email":"a@b.org","password":${nested(30_000)}}`],
  ['brackets in place of a name', nested(500)],
])('%s are refused for their depth', async (_, body) => {
  const answer = await post('/api/account/sign-in', body);
  expect(answer.status).toBe(400);
  expect(((await answer.json()) as { message: string }).message).toMatch(/nested/);
});

test('brackets within a text are text', async () => {
  const answer = await post('/api/account/sign-in', JSON.stringify({ email: person.email, password: '[{"'.repeat(60) }));
  expect(answer.status).toBe(401);
});

test('a stranger’s body is not read where only the signed-in may go', async () => {
  // The body never comes: whoever answers has not waited for it.
  const { hostname, port } = new URL(mailbag.address);
  const answer = await new Promise<string>((resolve, reject) => {
    const socket = connect(Number(port), hostname, () =>
      socket.write(
        `PUT /api/mailings/1 HTTP/1.1\r\nHost: ${hostname}:${port}\r\nX-Mailbag: 1\r\nContent-Type: application/json\r\nContent-Length: 20000000\r\n\r\n`,
      ),
    );
    socket.setTimeout(PATIENCE, () => reject(new Error('no answer')));
    socket.once('data', (data) => (resolve(data.toString()), socket.destroy())).once('error', reject);
  });
  expect(answer).toMatch(/^HTTP\/1\.1 401 /);
});

test('a packed body is not unpacked', async () => {
  const { gzipSync } = await import('node:zlib');
  const bomb = new Uint8Array(gzipSync(Buffer.alloc(50_000_000, ' ')));
  expect((await post('/api/account/sign-in', bomb, { 'content-encoding': 'gzip' })).status).toBe(415);
});

test.each([
  ['GET', '/api/people/invitation?token=a&token=b'],
  ['GET', '/api/people/invitation?token[a]=b'],
  ['GET', '/api/nothing'],
  ['GET', '/nothing.js'],
  ['GET', '/%ff'],
  ['GET', '//'],
  ['POST', '/api/account/sign-in'],
  ['DELETE', '/api/account'],
])('%s %s of a stranger is answered in a sentence, not as a fault of the server', async (method, path) => {
  const before = mailbag.log().length;
  const answer = await fetch(mailbag.address + path, { method, headers });
  expect([200, 400, 401, 404, 415, 422]).toContain(answer.status);
  expect(mailbag.log().slice(before)).not.toMatch(/ERROR/);
});

test.each(['null', 'https://elsewhere.example', 'not an address', 'http://'])('a change with the origin %p is refused', async (origin) => {
  const answer = await post('/api/account/sign-in', JSON.stringify({ email: person.email, password: person.password }), { origin });
  expect(answer.status).toBe(403);
});
