import { generateKeyPairSync } from 'node:crypto';
import { mailServer } from '../../../../demo/src/mail-set-up.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import { triedServer } from '../../../../testing/tried-server.js';

let office: PostOffice;
const mailbag = new RunningMailbag({ MAILBAG_MAIL_TIMEOUT: '1200' });
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const tried = (more: object): ReturnType<typeof triedServer> => triedServer(mailbag, { ...mailServer(office.smtp), ...more });

test('a test says at which step a mail server fails, and why', async () => {
  expect(await tried({})).toMatchObject({
    ok: true,
    steps: [
      { step: 'connect', ok: true },
      { step: 'greet', ok: true },
    ],
  });
  const refused = await tried({ port: 9 });
  expect(refused.steps).toEqual([{ step: 'connect', ok: false, answer: expect.stringContaining('nothing listens on port 9') }]);
  const signIn = await tried({ user: 'office', password: 'wrong' });
  expect(signIn.steps.at(-1)).toMatchObject({ step: 'sign in', ok: false, answer: expect.stringContaining('535 5.7.8') });
  expect(await tried({ user: 'office', password: 'right' })).toMatchObject({
    ok: true,
    answer: expect.stringContaining('took the sign-in'),
  });
  const unsecured = await tried({ security: 'starttls' });
  expect(unsecured.steps.at(-1)).toMatchObject({ step: 'secure', ok: false });
});

test.each([
  ['garbage', 'greet', /not as a mail server does/],
  ['silent', 'greet', /then said nothing/],
  ['broken-tls', 'secure', /could not be secured/],
])('a server that is %s fails at the step “%s” with a sentence', async (mood, step, words) => {
  await office.behave(`mood=${mood}`);
  const answer = await tried(mood === 'broken-tls' ? { security: 'starttls' } : {});
  await office.behave('mood=well');
  expect(answer.ok).toBe(false);
  expect(answer.steps.at(-1)).toMatchObject({ step, ok: false, answer: expect.stringMatching(words) });
});

interface Sender {
  id: number;
  address: string;
  confirmed: boolean;
  code: { triesLeft: number } | null;
}

test('a sender works only after its code was entered; five wrong tries use the code up', async () => {
  const { client } = mailbag;
  const [server] = await client.get<{ id: number }[]>('/api/mail-servers');
  const all = await client.send<Sender[]>('POST', '/api/senders', {
    serverId: server!.id,
    name: 'Rents',
    address: 'rents@larkmere.example',
  });
  const { id } = all.find(({ address }) => address === 'rents@larkmere.example')!;
  await client.send('POST', `/api/senders/${id}/code`);
  const code = await office.code('rents@larkmere.example');
  const wrong = code === '000000' ? '111111' : '000000';
  for (let left = 4; left > 0; left--)
    await expect(client.send('POST', `/api/senders/${id}/confirm`, { code: wrong })).rejects.toThrow(`${left} more attempts`);
  await expect(client.send('POST', `/api/senders/${id}/confirm`, { code: wrong })).rejects.toThrow('sender-code-over');
  await expect(client.send('POST', `/api/senders/${id}/confirm`, { code })).rejects.toThrow('sender-code-over');
  await client.send('POST', `/api/senders/${id}/code`);
  const fresh = await office.code('rents@larkmere.example');
  const confirmed = await client.send<Sender[]>('POST', `/api/senders/${id}/confirm`, { code: `${fresh.slice(0, 3)} ${fresh.slice(3)}` });
  expect(confirmed.find((one) => one.id === id)).toMatchObject({ confirmed: true, code: null });
  // Another address must be confirmed anew.
  const moved = await client.send<Sender[]>('PUT', `/api/senders/${id}`, {
    serverId: server!.id,
    name: 'Rents',
    address: 'rent@larkmere.example',
  });
  expect(moved.find((one) => one.id === id)!.confirmed).toBe(false);
});

test('a display name has at most 50 characters', async () => {
  await expect(
    mailbag.client.send('POST', '/api/senders', { serverId: 1, name: 'x'.repeat(51), address: 'a@larkmere.example' }),
  ).rejects.toThrow('at most 50 characters');
});

test('passwords and keys never come back to the browser', async () => {
  const { client } = mailbag;
  const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
  const pem = privateKey.export({ type: 'pkcs8', format: 'pem' });
  const [server] = await client.get<{ id: number }[]>('/api/mail-servers');
  await client.send('PUT', `/api/mail-servers/${server!.id}`, { ...mailServer(office.smtp), user: 'office', password: 'hush-hush' });
  const [sender] = await client.get<Sender[]>('/api/senders');
  await client.send('PUT', `/api/senders/${sender!.id}`, {
    serverId: server!.id,
    name: 'Office',
    address: sender!.address,
    dkimDomain: 'larkmere.example',
    dkimSelector: 'mail',
    dkimKey: pem,
  });
  const told = JSON.stringify([await client.get('/api/mail-servers'), await client.get('/api/senders')]);
  expect(told).toContain('"hasPassword":true');
  expect(told).toContain('"hasDkimKey":true');
  expect(told).not.toContain('hush');
  expect(told).not.toContain('PRIVATE');
  await expect(
    client.send('PUT', `/api/senders/${sender!.id}`, {
      serverId: server!.id,
      name: 'Office',
      address: sender!.address,
      dkimKey: 'nonsense',
    }),
  ).rejects.toThrow('sender-key-unreadable');
});
