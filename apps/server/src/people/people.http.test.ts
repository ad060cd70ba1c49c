import { ServerClient } from '../../../../demo/src/server-client.js';
import { PASSWORD, signedInAs } from '../../../../testing/accounts.js';
import { PostOffice, RunningMailbag, person } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
const mailbag = new RunningMailbag();
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

interface People {
  people: { id: number; email: string; role: string; sessions: number }[];
  invitations: { id: string; email: string }[];
}
const small = (client: ServerClient) => smallMailing(client, [['P-1', 'Quist', 'quist@example.org', 'yes']], { folder: 'people' });

test('what several fields of a request lack is one sentence, which ends once', async () => {
  const lacking = { name: '', email: 'nobody', role: 'viewer', seesValues: true, seesPasswords: false };
  await expect(mailbag.client.send('POST', '/api/people/invitations', lacking)).rejects.toThrow(
    '"The request was not understood: That is not an e-mail address. Give a name."',
  );
});

test('an invitation goes out by mail, works once, and can be taken back', async () => {
  const { address, failure } = await mailbag.client.send<{ address: string; failure: string | null }>('POST', '/api/people/invitations', {
    name: 'Vera',
    email: 'vera@larkmere.example',
    role: 'viewer',
    seesValues: true,
    seesPasswords: false,
  });
  expect(failure).toBeNull();
  expect((await office.received()).at(-1)).toMatchObject({
    to: 'vera@larkmere.example',
    subject: `${person.name} asks you to work with Mailbag`,
  });
  const token = new URL(address).searchParams.get('token');
  const client = new ServerClient(mailbag.address);
  await expect(client.send('POST', '/api/people/invitation', { token: 'nonsense', password: 'a sentence to remember' })).rejects.toThrow(
    'invitation-over',
  );
  await client.send('POST', '/api/people/invitation', { token, password: 'a sentence to remember' });
  await expect(client.send('POST', '/api/people/invitation', { token, password: 'another sentence here' })).rejects.toThrow(
    'invitation-over',
  );
  await mailbag.client.send('POST', '/api/people/invitations', {
    name: 'Ulf',
    email: 'ulf@larkmere.example',
    role: 'viewer',
    seesValues: true,
    seesPasswords: false,
  });
  const { invitations } = await mailbag.client.get<People>('/api/people');
  const after = await mailbag.client.send<People>('DELETE', `/api/people/invitations/${invitations[0]!.id}`);
  expect(after.invitations).toEqual([]);
});

test('a viewer looks and changes nothing; an operator works, but not on settings and people', async () => {
  const { mailing } = await small(mailbag.client);
  const viewer = await signedInAs(mailbag, { role: 'viewer' });
  expect((await viewer.get<unknown[]>('/api/mailings')).length).toBeGreaterThan(0);
  await expect(startBatch(viewer, mailing)).rejects.toThrow('account-not-allowed');
  await expect(viewer.send('POST', '/api/mailings', { name: 'x' })).rejects.toThrow('account-not-allowed');
  await expect(viewer.get('/api/people')).rejects.toThrow('account-not-allowed');
  const operator = await signedInAs(mailbag, { role: 'operator' });
  const { id } = await startBatch<Batch>(operator, mailing);
  await operator.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  for (const [method, path] of [
    ['POST', '/api/senders'],
    ['PUT', '/api/bounces'],
    ['PUT', '/api/retention'],
    ['POST', '/api/registers'],
    ['POST', '/api/people/invitations'],
  ] as const)
    await expect(operator.send(method, path, {})).rejects.toThrow('account-not-allowed');
});

test('who may not see values gets neither records nor copies, and passwords only who may see them', async () => {
  const { mailing } = await small(mailbag.client);
  const { version, plan } = await mailbag.client.get<{ version: number; plan: { output: object } }>(`/api/mailings/${mailing}`);
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: { ...plan, output: { ...plan.output, openPassword: '{{ plot }}{{ name }}' } },
  });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const [copy] = await copiesOf(mailbag.client, id);
  const blind = await signedInAs(mailbag, { role: 'viewer', seesValues: false });
  expect(await blind.get(`/api/copies/${copy!.id}`)).toMatchObject({ record: null, state: 'sent' });
  for (const path of [
    `/api/copies/${copy!.id}/pdf`,
    `/api/copies/${copy!.id}/message`,
    `/api/batches/${id}/zip`,
    '/api/sources/1/records?from=0&count=5',
    '/api/copies/copies.zip',
  ])
    await expect(blind.get(path)).rejects.toThrow('account-values-hidden');
  // A search must not answer what the eye may not see: “yes” stands in the record alone, the name in the ledger too.
  const found = async (client: ServerClient, text: string): Promise<[number, number]> => {
    const query = `batch=${id}&text=${text}`;
    const { rows } = await client.get<{ rows: unknown[] }>(`/api/copies?${query}`);
    return [rows.length, (await client.get<{ matching: number }>(`/api/copies/counts?${query}`)).matching];
  };
  expect([await found(mailbag.client, 'yes'), await found(blind, 'yes')]).toEqual([
    [1, 1],
    [0, 0],
  ]);
  expect(await found(blind, 'quis')).toEqual([1, 1]);
  expect(await blind.get('/api/find?text=yes')).toEqual({ hits: [] });
  // Examples in the columns are values too.
  expect(JSON.stringify(await mailbag.client.get(`/api/mailings/${mailing}`))).toContain('quist@example.org');
  expect(JSON.stringify(await blind.get(`/api/mailings/${mailing}`))).not.toContain('quist@example.org');
  await expect(blind.send('POST', `/api/copies/${copy!.id}/password`)).rejects.toThrow('account-passwords-hidden');
  expect(await mailbag.client.send('POST', `/api/copies/${copy!.id}/password`)).toEqual({ password: 'P-1Quist' });
  const history = await mailbag.client.get<{ who: string; action: string }[]>('/api/history?text=password');
  expect(history[0]).toMatchObject({ who: 'Test Person', action: 'looked at the password of a copy' });
});

test('signing out everywhere ends every session, and a closed account does not come in again', async () => {
  const client = await signedInAs(mailbag, { role: 'operator' }, 'away@larkmere.example');
  const { people } = await mailbag.client.get<People>('/api/people');
  const { id } = people.find(({ email }) => email === 'away@larkmere.example')!;
  await mailbag.client.send('POST', `/api/people/${id}/sign-out`);
  await expect(client.get('/api/mailings')).rejects.toThrow('account-signed-out');
  await mailbag.client.send('PUT', `/api/people/${id}`, {
    name: 'Away',
    role: 'operator',
    seesValues: true,
    seesPasswords: false,
    closed: true,
  });
  await expect(client.send('POST', '/api/account/sign-in', { email: 'away@larkmere.example', password: PASSWORD })).rejects.toThrow(
    'account-disabled',
  );
});

test('the last administrator stays one', async () => {
  const { people } = await mailbag.client.get<People>('/api/people');
  const { id } = people.find(({ email }) => email === person.email)!;
  await expect(
    mailbag.client.send('PUT', `/api/people/${id}`, { name: person.name, role: 'viewer', seesValues: true, seesPasswords: true }),
  ).rejects.toThrow('account-last-administrator');
});

test('everybody says in which language Mailbag speaks to them, for themselves alone', async () => {
  const viewer = await signedInAs(mailbag, { role: 'viewer' });
  const languageOf = async (client: ServerClient): Promise<string> =>
    (await client.get<{ account: { language: string } }>('/api/account')).account.language;
  expect(await languageOf(viewer)).toBe('');
  await viewer.send('PUT', '/api/people/me/language', { language: 'de' });
  expect([await languageOf(viewer), await languageOf(mailbag.client)]).toEqual(['de', '']);
  await expect(viewer.send('PUT', '/api/people/me/language', { language: 'tlh' })).rejects.toThrow('Mailbag does not speak this language');
  await viewer.send('PUT', '/api/people/me/language', { language: '' });
  expect(await languageOf(viewer)).toBe('');
});
