import { RunningMailbag, person } from '../../../../testing/running-mailbag.js';

const mailbag = new RunningMailbag();
beforeAll(() => mailbag.start());
afterAll(() => mailbag.close());

const ask = (
  method: string,
  path: string,
  { cookie = '', headers = {}, body }: { cookie?: string; headers?: Record<string, string>; body?: unknown } = {},
) =>
  fetch(mailbag.address + path, {
    method,
    redirect: 'manual',
    headers: { 'x-mailbag': '1', cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });

test('the first visitor sets up the administrator; a second one cannot', async () => {
  expect(await (await ask('GET', '/api/account')).json()).toMatchObject({ account: null, setUpNeeded: true });
  const response = await ask('POST', '/api/account/set-up', { body: person });
  expect(response.status).toBe(204);
  const cookie = response.headers.get('set-cookie')!;
  expect(cookie).toMatch(/HttpOnly/);
  expect(cookie).toMatch(/SameSite=Strict/);
  expect((await ask('POST', '/api/account/set-up', { body: { ...person, email: 'second@larkmere.example' } })).status).toBe(409);
});

test('every path but sign-in, health and the web files refuses the unknown', async () => {
  const paths: [string, string][] = [
    ['GET', '/api/desk'],
    ['GET', '/api/find?text=a'],
    ['GET', '/api/events'],
    ['GET', '/api/faces'],
    ['GET', '/api/templates'],
    ['GET', '/api/templates/1'],
    ['GET', '/api/templates/1/pdf'],
    ['POST', '/api/templates'],
    ['GET', '/api/sources'],
    ['POST', '/api/sources'],
    ['POST', '/api/sources/files'],
    ['GET', '/api/sources/1/records?from=0&count=1'],
    ['GET', '/api/mailings'],
    ['PUT', '/api/mailings/1'],
    ['POST', '/api/mailings/1/batches'],
    ['GET', '/api/batches/1/zip'],
    ['POST', '/api/batches/1/cancel'],
    ['GET', '/api/copies'],
    ['GET', '/api/copies/1/pdf'],
    ['POST', '/api/copies/1/send-again'],
    ['GET', '/api/senders'],
    ['POST', '/api/mail-servers'],
  ];
  const answers = await Promise.all(paths.map(async ([method, path]) => [`${method} ${path}`, (await ask(method, path)).status]));
  expect(answers.filter(([, status]) => status !== 401)).toEqual([]);
  expect((await ask('GET', '/api/health')).status).toBe(200);
  expect((await ask('GET', '/')).headers.get('content-type')).toContain('text/html');
});

test('a request that another site could send changes nothing', async () => {
  const signedIn = (await ask('POST', '/api/account/sign-in', { body: person })).headers.get('set-cookie')!.split(';')[0]!;
  const plain = await ask('POST', '/api/mailings', { cookie: signedIn, headers: { 'x-mailbag': '' }, body: { name: 'x' } });
  const foreign = await ask('POST', '/api/mailings', {
    cookie: signedIn,
    headers: { origin: 'https://elsewhere.example' },
    body: { name: 'x' },
  });
  expect([plain.status, foreign.status]).toEqual([403, 403]);
  expect(await (await ask('GET', '/api/mailings', { cookie: signedIn })).json()).toEqual([]);
});

test('after signing out the cookie is worth nothing', async () => {
  const cookie = (await ask('POST', '/api/account/sign-in', { body: person })).headers.get('set-cookie')!.split(';')[0]!;
  expect((await ask('GET', '/api/desk', { cookie })).status).toBe(200);
  await ask('POST', '/api/account/sign-out', { cookie });
  expect((await ask('GET', '/api/desk', { cookie })).status).toBe(401);
});

test('who guesses passwords is slowed down after a few tries, and told how long to wait', async () => {
  const wrong = { email: 'guess@larkmere.example', password: 'wrong' };
  const statuses: number[] = [];
  for (let tries = 0; tries < 6; tries++) statuses.push((await ask('POST', '/api/account/sign-in', { body: wrong })).status);
  expect(statuses).toEqual(Array(6).fill(401));
  const last = await ask('POST', '/api/account/sign-in', { body: wrong });
  expect(last.status).toBe(429);
  expect(((await last.json()) as { message: string }).message).toMatch(/Wait 2 seconds/);
});

test('paths cannot be made to leave their folder', async () => {
  for (const path of ['/..%2f..%2fmailbag.sqlite', '/%2e%2e/secret.key', '/assets/..%2f..%2fpackage.json']) {
    const response = await ask('GET', path);
    expect(
      (await response.text()).includes('SQLite format') ||
        response.status >= 400 ||
        response.headers.get('content-type')!.includes('text/html'),
    ).toBe(true);
  }
});
