import { request as ask } from 'node:http';
import { signedInAs } from '../testing/accounts.js';
import { RunningMailbag, person } from '../testing/running-mailbag.js';

/** Guessing is slow whatever way it goes about it, and nobody else is held up by it. */
const mailbag = new RunningMailbag({ MAILBAG_PROXIES: '1' });
const named = new RunningMailbag({ MAILBAG_ADDRESS: 'https://mailbag.larkmere.example', MAILBAG_PROXIES: '1' });
beforeAll(async () => {
  await Promise.all([mailbag.start(), named.start()]);
  await mailbag.setUp();
});
afterAll(() => Promise.all([mailbag.close(), named.close()]));

interface Answer {
  status: number;
  headers: NodeJS.Dict<string | string[]>;
  body: { code?: string; fields?: { seconds?: number } };
}
/** Asks as from a place behind the proxy, under any host name. */
function post(path: string, body: unknown, place: string, headers: Record<string, string> = {}, to = mailbag): Promise<Answer> {
  return new Promise((done, fail) => {
    const sent = ask(`${to.address}${path}`, {
      method: body === null ? 'GET' : 'POST',
      headers: { 'content-type': 'application/json', 'x-mailbag': '1', 'x-forwarded-for': place, ...headers },
    });
    sent.once('error', fail).once('response', (answer) => {
      let text = '';
      answer.on('data', (chunk: Buffer) => (text += chunk.toString()));
      answer.once('end', () =>
        done({
          status: answer.statusCode!,
          headers: answer.headers,
          body: text.startsWith('{') ? (JSON.parse(text) as Answer['body']) : {},
        }),
      );
    });
    sent.end(body === null ? undefined : JSON.stringify(body));
  });
}
const signIn = (email: string, password: string, place: string): Promise<Answer> =>
  post('/api/account/sign-in', { email, password }, place);

test('a hundred guesses at the same moment are no more than a few, and the office behind the same proxy signs in all the while', async () => {
  const guesses = await Promise.all(Array.from({ length: 100 }, (_, index) => signIn(person.email, `guess ${index}`, '203.0.113.9')));
  const taken = guesses.filter(({ status }) => status === 401).length;
  expect(taken).toBeGreaterThan(0);
  expect(taken).toBeLessThanOrEqual(6);
  expect(guesses.filter(({ status }) => status !== 401).every(({ status, body }) => status === 429 && body.fields!.seconds! > 0)).toBe(
    true,
  );
  // From another desk, under the same proxy, and for the same account.
  expect((await signIn(person.email, person.password, '203.0.113.10')).status).toBe(204);
  await signedInAs(mailbag, { role: 'viewer' }, 'vera@larkmere.example');
  expect((await signIn('vera@larkmere.example', 'marrows and 12 kinds of bean', '203.0.113.9')).status).toBe(204);
});

test('whoever has to wait is told how long, and comes in after it', async () => {
  let last: Answer | null = null;
  for (let tries = 0; tries < 7; tries++) last = await signIn(person.email, 'wrong', '203.0.113.20');
  expect(last).toMatchObject({ status: 429, body: { fields: { seconds: 2 } } });
  await new Promise((done) => setTimeout(done, 2100));
  expect((await signIn(person.email, person.password, '203.0.113.20')).status).toBe(204);
});

test('many addresses guessed at from one place are slowed down, and one address guessed at from many', async () => {
  const spray: number[] = [];
  for (let index = 0; index < 40; index++)
    spray.push((await signIn(`somebody.${index}@larkmere.example`, 'summer', '203.0.113.30')).status);
  expect(spray.filter((status) => status === 429).length).toBeGreaterThan(5);
  const spread = await Promise.all(
    Array.from({ length: 60 }, (_, index) => signIn('vera@larkmere.example', 'summer', `198.51.100.${index}`)),
  );
  expect(spread.filter(({ status }) => status === 401).length).toBeLessThanOrEqual(32);
  // Where she has signed in before, Vera is not held up by that.
  expect((await signIn('vera@larkmere.example', 'marrows and 12 kinds of bean', '203.0.113.9')).status).toBe(204);
});

test('an IPv6 host is one place, however many of its addresses it takes', async () => {
  const answers: number[] = [];
  for (let index = 0; index < 10; index++)
    answers.push((await signIn('ulf@larkmere.example', 'summer', `2001:db8:7:7::${index + 1}`)).status);
  expect(answers.filter((status) => status === 429).length).toBeGreaterThanOrEqual(3);
});

test('the own password cannot be guessed in a session that was left open, nor can invitations', async () => {
  const viewer = await signedInAs(mailbag, { role: 'viewer' }, 'open@larkmere.example');
  const headers = { cookie: viewer.cookieHeader };
  const guesses = await Promise.all(
    Array.from({ length: 40 }, (_, index) =>
      post('/api/people/me/password', { before: `guess ${index}`, password: 'otters wear 3 green hats' }, '203.0.113.40', headers),
    ),
  );
  expect(guesses.filter(({ status }) => status === 401).length).toBeLessThanOrEqual(6);
  const tokens = await Promise.all(
    Array.from({ length: 60 }, (_, index) =>
      post('/api/people/invitation', { token: `token ${index}`, password: 'otters wear 3 green hats' }, '203.0.113.41'),
    ),
  );
  expect(tokens.filter(({ status }) => status === 429).length).toBeGreaterThan(20);
});

test('a password that everybody knows, or that is one’s own name, is refused', async () => {
  const { address } = await mailbag.client.send<{ address: string }>('POST', '/api/people/invitations', {
    name: 'Ottoline Marsh',
    email: 'ottoline@larkmere.example',
    role: 'viewer',
    seesValues: true,
    seesPasswords: false,
  });
  const token = new URL(address).searchParams.get('token')!;
  for (const password of ['password1234', 'qwertyuiop', '1234567890', 'Summer2026!', 'ottoline marsh', 'aaaaaaaaaaaa', 'mailbagmailbag'])
    expect([password, (await post('/api/people/invitation', { token, password }, '203.0.113.50')).body.code]).toEqual([
      password,
      'password-weak',
    ]);
  expect((await post('/api/people/invitation', { token, password: 'otters wear 3 green hats' }, '203.0.113.50')).status).toBe(204);
});

test('failed sign-ins stand in the history, without what was typed', async () => {
  const lines = await mailbag.client.get<{ action: string; subject: string; detail: string }[]>('/api/history?text=could not sign in');
  expect(lines.find(({ subject, detail }) => subject === person.email && detail.includes('203.0.113.9'))).toBeDefined();
  expect(JSON.stringify(lines)).not.toContain('somebody.1@');
});

test('behind a proxy with a name of its own, cookies are for https only, links have that name, and others are refused', async () => {
  const host = { host: 'mailbag.larkmere.example', 'x-forwarded-proto': 'https' };
  const setUp = await post('/api/account/set-up', person, '203.0.113.60', host, named);
  expect(setUp.status).toBe(204);
  expect(String(setUp.headers['set-cookie'])).toMatch(/Secure/);
  const cookie = String(setUp.headers['set-cookie']).split(';')[0]!;
  const invited = await post(
    '/api/people/invitations',
    { name: 'Vera', email: 'vera@larkmere.example', role: 'viewer', seesValues: true, seesPasswords: false },
    '203.0.113.60',
    { ...host, cookie, origin: 'https://mailbag.larkmere.example' },
    named,
  );
  expect((invited.body as { address?: string }).address).toMatch(/^https:\/\/mailbag\.larkmere\.example\/invitation\?token=/);
  for (const path of ['/api/account', '/', '/desk'])
    expect((await post(path, null, '203.0.113.60', { host: 'elsewhere.example', cookie }, named)).status).toBe(421);
  expect(
    (await post('/api/people/invitations', {}, '203.0.113.60', { ...host, cookie, origin: 'https://elsewhere.example' }, named)).status,
  ).toBe(403);
  expect((await post('/api/health', null, '203.0.113.60', {}, named)).status).toBe(200);
});

test('what a stranger says of where they are is not believed unless a proxy was named', async () => {
  const plain = await new RunningMailbag().start();
  try {
    await plain.setUp();
    const answers: number[] = [];
    for (let index = 0; index < 10; index++)
      answers.push(
        (await post('/api/account/sign-in', { email: person.email, password: 'wrong' }, `198.51.100.${index}`, {}, plain)).status,
      );
    expect(answers.filter((status) => status === 429).length).toBeGreaterThanOrEqual(3);
  } finally {
    await plain.close();
  }
});

test('what is told as it happens ends with the session, and one account cannot keep any number of streams open', async () => {
  const viewer = await signedInAs(mailbag, { role: 'viewer' }, 'streams@larkmere.example');
  const headers = { cookie: viewer.cookieHeader };
  const streams = await Promise.all(Array.from({ length: 25 }, () => fetch(`${mailbag.address}/api/events`, { headers })));
  expect(streams.filter(({ status }) => status === 200)).toHaveLength(20);
  expect(streams.filter(({ status }) => status === 429)).toHaveLength(5);
  const ended = Promise.all(streams.filter(({ ok }) => ok).map((stream) => stream.text()));
  await viewer.send('POST', '/api/account/sign-out');
  expect(await ended).toHaveLength(20);
});
