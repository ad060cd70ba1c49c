import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';

/** Copies that a visitor has mailed on: only once their own address is shown to be theirs, few times, in the office's words. */
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '1000' });
let office: PostOffice;
const key = 'a-visitor-of-the-page-0001';
const ask = (method: string, path: string, body?: unknown): Promise<Response> =>
  stranger(mailbag.address, method, `/api/public/receipts/${key}${path}`, body);
const askCode = (email: string): Promise<Response> => ask('POST', '/mail-code', { email, language: 'de' });
const send = async (code: string, to: string): Promise<[number, string]> => {
  const answer = await ask('POST', '/mail', { code, to, language: 'de' });
  return [answer.status, await answer.text()];
};

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  const { intake, edition, idOf } = await smallIntake(mailbag.client, 'Permits');
  // The office itself mails nothing.
  const { version, plan } = await mailbag.client.get<{ version: number; plan: { message: object } }>(`/api/mailings/${intake.mailingId}`);
  await mailbag.client.send('PUT', `/api/mailings/${intake.mailingId}`, {
    version,
    plan: { ...plan, message: { ...plan.message, mailed: false } },
  });
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
  const answers = {
    [idOf('Plot number')]: 'B-17',
    [idOf('Name of the tenant')]: 'Buy now at evil.example',
    [idOf('E-mail address')]: 'ada@example.org',
  };
  await stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/submissions`, { edition, key, language: 'de', answers });
  for (;;) {
    const { isMaking, canMail } = (await (await ask('GET', '')).json()) as { isMaking: boolean; canMail: boolean };
    expect(canMail).toBe(true);
    if (!isMaking) break;
    await new Promise((over) => setTimeout(over, 100));
  }
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});
const codeOf = async (address: string): Promise<string> =>
  (await office.received())
    .filter(({ to, subject }) => to === address && /^\d{6} /.test(subject))
    .at(-1)!
    .subject.slice(0, 6);

test('without a code nothing goes anywhere, and no code goes to what is no address', async () => {
  expect(await send('123456', 'victim@example.org')).toEqual([409, expect.stringContaining('intake-code-wrong')]);
  for (const email of ['nobody', 'ada@example.org\r\nBcc: all@example.org', 'ada@example.org, all@example.org'])
    expect((await askCode(email)).status).toBe(409);
  expect(await office.letters()).toEqual([]);
});

test('a code that was guessed at five times is over', async () => {
  expect((await askCode('ada@example.org')).status).toBe(204);
  const code = await codeOf('ada@example.org');
  const wrong = code === '000000' ? '000001' : '000000';
  for (let tries = 0; tries < 5; tries++) expect((await send(wrong, 'ada@example.org'))[0]).toBe(409);
  expect(await send(code, 'ada@example.org')).toEqual([409, expect.stringContaining('intake-code-wrong')]);
});

test('with the code the copies go to oneself and to others, in the office’s words, and the ledger tells it; three times at most', async () => {
  await askCode('ada@example.org');
  const code = await codeOf('ada@example.org');
  expect((await send(`${code.slice(0, 3)} ${code.slice(3)}`, 'ada@example.org'))[0]).toBe(204);
  expect((await send(code, 'bank@example.net'))[0]).toBe(204);
  expect((await send(code, 'bank@example.net\r\nBcc: all@example.org'))[0]).toBe(409);
  const letters = (await office.received()).filter(({ subject }) => subject === 'Kopien von: Permits');
  expect(letters.map(({ to, attachments }) => [to, attachments.map(({ type }) => type)])).toEqual([
    ['ada@example.org', ['application/pdf']],
    ['bank@example.net', ['application/pdf']],
  ]);
  const raw = Buffer.from(await office.raw(letters[1]!.id)).toString('utf8');
  expect(raw).toContain('ada@example.org');
  expect(raw).not.toMatch(/evil|Buy/);
  const many = await Promise.all(['a', 'b', 'c'].map((name) => send(code, `${name}@example.org`)));
  expect(many.filter(([status]) => status === 204)).toHaveLength(1);
  const { rows } = await mailbag.client.get<{ rows: { id: number }[] }>('/api/copies');
  const story = JSON.stringify(await mailbag.client.get(`/api/copies/${rows[0]!.id}`));
  expect(story).toContain('"code":"passed-on","fields":{"to":"bank@example.net","from":"ada@example.org"}');
});

test('of a submission that is not there nothing is mailed', async () => {
  const gone = await stranger(mailbag.address, 'POST', '/api/public/receipts/nobody-0123456789/mail-code', {
    email: 'ada@example.org',
    language: 'en',
  });
  expect(gone.status).toBe(404);
});
