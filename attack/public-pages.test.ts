import { changesBetween } from '@mailbag/core';
import type { Json } from '@mailbag/core';
import { RunningMailbag } from '../testing/running-mailbag.js';
import type { SmallIntake } from '../testing/small-intake.js';
import { smallIntake, stranger } from '../testing/small-intake.js';

/** What strangers try on the pages that anybody can reach. */
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '1000' });
let intake: SmallIntake;
let edition: number;
let idOf: (words: string) => string;
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  ({ intake, edition, idOf } = await smallIntake(mailbag.client));
});
afterAll(() => mailbag.close());

const ask = (method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Response> =>
  stranger(mailbag.address, method, path, body, headers);
const right = (): Record<string, unknown> => ({ [idOf('Plot number')]: 'B-17', [idOf('E-mail address')]: 'ada@example.org' });
const submit = (more: object = {}): Promise<Response> =>
  ask('POST', `/api/public/intakes/${intake.word}/submissions`, {
    edition,
    key: 'a'.repeat(40),
    language: 'en',
    answers: right(),
    ...more,
  });
const total = async (): Promise<number> =>
  (await mailbag.client.get<{ total: number }>(`/api/intakes/${intake.id}/submissions?from=0&count=1`)).total;

/** The page is changed and published again. */
async function republish(change: (plan: SmallIntake['plan']) => object): Promise<void> {
  const { plan } = await mailbag.client.get<SmallIntake>(`/api/intakes/${intake.id}`);
  const next = { ...plan, ...change(plan) };
  const changes = changesBetween(plan as unknown as Json, next as unknown as Json, () => false);
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/changes`, { changes });
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
  ({ edition } = await mailbag.client.get<{ edition: number }>(`/api/public/intakes/${intake.word}`));
}

test.each([
  '/api/intakes',
  '/api/intakes/1',
  '/api/intakes/1/submissions?from=0&count=10',
  '/api/sources/1/records?from=0&count=10',
  '/api/mailings/1',
  '/api/copies?count=50',
  '/api/events',
])('nothing else is told to whoever is not signed in: %s', async (path) => expect((await ask('GET', path)).status).toBe(401));

test('what is told of a page holds no template, no field, no map and no draft', async () => {
  const text = await (await ask('GET', `/api/public/intakes/${intake.word}`)).text();
  expect(text).not.toMatch(/permit\.|"maps"|fieldList|mailingId|sourceId|"doubt":"[^"]/);
});

test('words, receipts and versions that do not exist are all answered alike, so that nothing is learnt by asking', async () => {
  const other = await mailbag.client.send<SmallIntake>('POST', '/api/intakes', { name: 'Not published', templates: [1] });
  const answers = await Promise.all(
    [`/api/public/intakes/${other.word}`, '/api/public/intakes/there-is-none', '/api/public/intakes/..%2f..%2fetc'].map(async (path) => {
      const answer = await ask('GET', path);
      return [answer.status, ((await answer.json()) as { message: string }).message];
    }),
  );
  expect(answers.every(([status, message]) => status === 404 && message === answers[0]![1])).toBe(true);
  for (const key of ['1', 'a'.repeat(39), '../intakes', '%00'])
    expect((await ask('GET', `/api/public/receipts/${encodeURIComponent(key)}`)).status).toBe(404);
});

test('the version of one page opens no other page', async () => {
  const second = await smallIntake(mailbag.client, 'Second');
  const crossed = await ask('POST', `/api/public/intakes/${intake.word}/submissions`, {
    edition: second.edition,
    key: 'c'.repeat(40),
    language: 'en',
    answers: right(),
  });
  expect(crossed.status).toBe(404);
  expect((await ask('POST', `/api/public/intakes/${intake.word}/preview/0`, { edition: second.edition, answers: {} })).status).toBe(404);
});

test.each<[string, object]>([
  ['answers that are no object', { answers: 'all' }],
  ['a key that could be guessed', { key: '1' }],
  ['a key with a path in it', { key: '../../../../etc/passwd1' }],
  ['a language that is none', { language: '<script>' }],
  ['no version', { edition: null }],
])('%s is refused', async (_, more) => expect((await submit(more)).status).toBeGreaterThanOrEqual(400));

test('answers to questions that there are none of, and of other kinds, are left out or refused; nothing of them is kept', async () => {
  const strange = { ...right(), __proto__: { admin: true }, constructor: 'x', q999: 'x', [idOf('Site')]: { deep: [1] } };
  const answer = await submit({ key: 'b'.repeat(40), answers: strange });
  const { number } = (await answer.json()) as { number: string };
  const { lines } = await mailbag.client.get<{ lines: { number: string; values: object }[] }>(
    `/api/intakes/${intake.id}/submissions?from=0&count=10`,
  );
  const { values } = lines.find((one) => one.number === number)!;
  expect(JSON.stringify(values)).not.toMatch(/admin|deep|q999/);
  expect(values).toMatchObject({ Site: '' });
});

test('headers, HTML and templates in answers stay what they are: text', async () => {
  const odd = '<img src=x onerror=alert(1)>\r\nBcc: all@example.org {{ 7 * 7 }} =1+1';
  const answer = await submit({ key: 'd'.repeat(40), answers: { ...right(), [idOf('Name of the tenant')]: odd } });
  expect(answer.status).toBe(200);
  const csv = Buffer.from(await mailbag.client.bytes(`/api/sources/${intake.sourceId}/records.csv`)).toString('utf8');
  await mailbag.client.until<{ count: number }>(`/api/sources/${intake.sourceId}`, ({ count }) => count >= 2);
  expect(csv).not.toContain('{{ 49');
  const mail = await submit({
    key: 'e'.repeat(40),
    answers: { ...right(), [idOf('E-mail address')]: 'a@example.org\r\nBcc: all@example.org' },
  });
  expect(((await mail.json()) as { faults: { code: string }[] }).faults).toMatchObject([{ code: 'not-an-address' }]);
});

test.each<[string, string]>([
  ['an SVG', `data:image/svg+xml;base64,${Buffer.from('<svg onload="alert(1)"/>').toString('base64')}`],
  ['HTML that says it is a PNG', `data:image/png;base64,${Buffer.from('<html>').toString('base64')}`],
  ['a name of a file', '../../mailbag.sqlite'],
  ['an address', 'https://example.org/x.png'],
])('%s is no signature', async (_, picture) => {
  // The only picture that the form takes is the office's own; it is brought back for this.
  const own = Object.values(intake.plan.questions).find(({ words }) => words === 'Signature of the office')!;
  await republish(({ questions }) => ({ questions: { ...questions, [own.id]: { ...questions[own.id]!, isAway: false } } }));
  const before = await total();
  const answer = await submit({
    key: `f${Math.random().toString(16).slice(2).padEnd(20, '0')}`,
    edition,
    answers: { ...right(), [own.id]: picture },
  });
  expect((await answer.json()) as { number: null; faults: { code: string }[] }).toMatchObject({
    number: null,
    faults: [{ code: 'not-a-picture' }],
  });
  expect(await total()).toBe(before);
});

test('a body that is too large, packed or no JSON is refused before it is read', async () => {
  const large = await ask(
    'POST',
    `/api/public/intakes/${intake.word}/submissions`,
    JSON.stringify({ answers: { a: 'x'.repeat(6_000_000) } }),
  ).catch(() => null);
  expect(large === null || large.status === 413).toBe(true);
  expect((await ask('POST', `/api/public/intakes/${intake.word}/check`, 'x', { 'Content-Type': 'text/plain' })).status).toBe(415);
  expect((await ask('POST', `/api/public/intakes/${intake.word}/check`, '{', {})).status).toBe(400);
});

test('no other site’s form can send an answer, and only sites that are named may show the page within theirs', async () => {
  const crossed = await fetch(`${mailbag.address}/api/public/intakes/${intake.word}/submissions`, {
    method: 'POST',
    body: 'a=b',
    headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
  });
  expect(crossed.status).toBeGreaterThanOrEqual(400);
  const policy = async (word: string): Promise<string> => (await ask('GET', `/in/${word}`)).headers.get('content-security-policy') ?? '';
  expect(await policy(intake.word)).toMatch(/default-src 'none'.*script-src 'self'.*frame-ancestors 'self'$/);
  expect((await ask('GET', `/in/${intake.word}`)).headers.get('x-frame-options')).toBe('SAMEORIGIN');
  await republish(({ opening }) => ({ opening: { ...opening, sites: ['https://www.larkmere.example'] } }));
  expect(await policy(intake.word)).toMatch(/frame-ancestors 'self' https:\/\/www\.larkmere\.example$/);
  await expect(
    republish(({ opening }) => ({ opening: { ...opening, sites: ["https://a.example; script-src 'unsafe-inline'"] } })),
  ).rejects.toThrow(/A site is an address without a path/);
});

test('the field that people do not see tells programs that fill in everything', async () => {
  const before = await total();
  expect((await submit({ key: '9'.repeat(40), website: 'https://spam.example' })).status).toBe(400);
  expect(await total()).toBe(before);
});

test('a page whose places are taken takes no more, and says whom to ask', async () => {
  await republish(({ opening }) => ({ opening: { ...opening, maximum: 1, contact: 'the office' } }));
  const { edition: now, closed } = await mailbag.client.get<{ edition: number; closed: object }>(`/api/public/intakes/${intake.word}`);
  expect(closed).toEqual({ why: 'full', at: '' });
  const answer = await submit({ key: '8'.repeat(40), edition: now });
  expect([answer.status, ((await answer.json()) as { code: string }).code]).toEqual([409, 'intake-closed']);
});
