import { unzipSync } from 'fflate';
import { encode as encodePng } from 'fast-png';
import { bankMandate } from '../../../../demo/src/forms/bank-mandate.js';
import { shedPermit } from '../../../../demo/src/forms/shed-permit.js';
import { readByOther } from '../../../../testing/other-reader.js';
import { PATIENCE } from '../../../../testing/patience.js';
import { inkIn, pictureOf } from '../../../../testing/picture.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';

/** An intake from its forms to the copies that its visitors fetch and are mailed, over the real server. */
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '1000' });
let office: PostOffice;
let intake: Intake;
let templates: number[];
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  templates = [];
  for (const [name, bytes] of [
    ['Bank mandate.pdf', bankMandate()],
    ['Shed permit.pdf', shedPermit()],
  ] as const)
    templates.push((await mailbag.client.upload<{ template: { id: number } }>('/api/templates', name, bytes)).template.id);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

/** Of the bank mandate, in points as in its /Rect. */
let signatureBox: [number, number, number, number];

interface Question {
  id: string;
  column: string;
  words: string;
  kind: string;
  required: boolean;
  options: { value: string; say: string }[];
  isAway: boolean;
  when: unknown;
}
interface Plan {
  sections: { id: string; title: string; questions: string[] }[];
  questions: Record<string, Question>;
}
interface Intake {
  id: number;
  word: string;
  version: number;
  mailingId: number;
  sourceId: number;
  plan: Plan;
  places: Record<string, { template: number; field: string }[]>;
  isPublished: boolean;
  isAhead: boolean;
  earlierWords: string[];
  templates: { fieldList: { kind: string; widgets: { rect: [number, number, number, number] }[] }[] }[];
}

/** Asks as a stranger does: without a session. */
async function stranger(method: string, path: string, body?: unknown): Promise<Response> {
  return fetch(`${mailbag.address}/api/public${path}`, {
    method,
    headers: { 'X-Mailbag': '1', ...(body !== undefined && { 'Content-Type': 'application/json' }) },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
}
const told = async <T>(answer: Promise<Response>): Promise<T> => (await (await answer).json()) as T;
const idOf = (words: string): string => Object.values(intake.plan.questions).find((one) => one.words === words)!.id;
const signature = `data:image/png;base64,${Buffer.from(encodePng({ width: 60, height: 20, channels: 3, depth: 8, data: new Uint8Array(3600) })).toString('base64')}`;

const answersOf = (more: Record<string, unknown> = {}): Record<string, unknown> => ({
  [idOf('Plot number')]: 'B-17',
  [idOf('Name of the tenant')]: 'Ayumi Brandt',
  [idOf('E-mail address')]: 'ayumi@example.org',
  [idOf('Account holder')]: 'Ayumi Brandt',
  [idOf('IBAN')]: 'DE89 3704 0044 0532 0130 00',
  [idOf('Payment')]: 'Twice a year',
  [idOf('Greenhouse')]: 'yes',
  [idOf('Roof')]: 'Green roof',
  [idOf('Signature of the account holder')]: signature,
  ...more,
});
const key = (number: number): string => `0123456789abcdef-${number}`;
const edition = async (): Promise<number> => (await told<{ edition: number }>(stranger('GET', `/intakes/${intake.word}`))).edition;
const submit = async (number: number, answers: Record<string, unknown>) =>
  told<{
    number: string | null;
    receipt: string | null;
    faults: { question: string; code: string; detail: string }[];
    code?: string;
    message?: string;
  }>(stranger('POST', `/intakes/${intake.word}/submissions`, { edition: await edition(), key: key(number), language: 'en', answers }));

test('two forms become a page in one step: what both ask is asked once, and every question is mapped to its fields', async () => {
  intake = await mailbag.client.send<Intake>('POST', '/api/intakes', { name: 'Ask for a plot', templates });
  expect(intake).toMatchObject({ word: 'ask-for-a-plot', isPublished: false });
  signatureBox = intake.templates[0]!.fieldList.find(({ kind }) => kind === 'signature')!.widgets[0]!.rect;
  const asked = intake.plan.sections.flatMap(({ title, questions }) => questions.map((id) => ({ title, ...intake.plan.questions[id]! })));
  expect(asked.filter(({ words }) => words === 'Plot number')).toHaveLength(1);
  expect(intake.places['Plot number']!.map(({ template }) => template)).toEqual(templates);
  expect(asked.find(({ words }) => words === 'Payment')).toMatchObject({ kind: 'one of', title: 'How often' });
  expect(asked.find(({ words }) => words === 'E-mail address')).toMatchObject({ kind: 'e-mail' });
  expect(asked.find(({ words }) => words === 'Signature of the office')).toMatchObject({ isAway: true });
});

test('as long as it is not published, nothing is to be found under its word', async () => {
  expect((await stranger('GET', '/intakes/ask-for-a-plot')).status).toBe(404);
});

test('a question that waits for one that waits for it is refused with both of their words', async () => {
  const waits = (id: string, column: string) => ({
    at: ['questions', id, 'when'],
    value: { of: { kind: 'column', column }, test: 'is', values: ['yes'] },
  });
  const [one, other] = [idOf('Greenhouse'), idOf('Roof')];
  const was = intake.plan.questions;
  const change = (changes: object[]) =>
    mailbag.client.send<{ version: number; plan: Plan }>('POST', `/api/intakes/${intake.id}/changes`, { changes });
  const next = {
    ...intake.plan,
    questions: {
      ...was,
      [one]: { ...was[one]!, when: waits(one, 'Roof').value },
      [other]: { ...was[other]!, when: waits(other, 'Greenhouse').value },
    },
  };
  const { changesBetween } = await import('@mailbag/core');
  await change(changesBetween(intake.plan as never, next as never, () => false) as object[]);
  await expect(mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`)).rejects.toThrow(/“Greenhouse” → “Roof” → “Greenhouse”/);
  const open = { ...next, questions: { ...next.questions, [one]: was[one]! } };
  await change(changesBetween(next as never, open as never, () => false) as object[]);
});

test('it is published under its word, and what strangers are told holds nothing that was put away', async () => {
  intake = await mailbag.client.send<Intake>('POST', `/api/intakes/${intake.id}/publish`);
  expect(intake).toMatchObject({ isPublished: true, isAhead: false });
  const page = await told<{ plan: Plan; forms: string[]; closed: null }>(stranger('GET', '/intakes/ask-for-a-plot'));
  expect(page).toMatchObject({ forms: ['Bank mandate', 'Shed permit'], closed: null });
  expect(Object.values(page.plan.questions).map(({ words }) => words)).not.toContain('Signature of the office');
  expect(JSON.stringify(page)).not.toMatch(/permit\.|topmostSubform|maps/);
});

test('a visitor sees the filled form before they send anything', async () => {
  const answer = await stranger('POST', `/intakes/${intake.word}/preview/0`, { edition: await edition(), answers: answersOf() });
  expect(answer.headers.get('X-Copies')).toBe('0,1');
  const [page] = await readByOther(new Uint8Array(await answer.arrayBuffer()));
  expect(page!.text).toContain('Ayumi Brandt');
  expect(page!.text.replaceAll(' ', '')).toContain('DE89370400440532013000');
  expect((await mailbag.client.get<{ total: number }>(`/api/intakes/${intake.id}/submissions?from=0&count=10`)).total).toBe(0);
});

test('answers that cannot be taken are told by their questions, and nothing is kept of them', async () => {
  const { number, faults } = await submit(
    1,
    answersOf({ [idOf('IBAN')]: 'DE89 3704 0044 0532 0130 01', [idOf('Plot number')]: '', [idOf('E-mail address')]: 'nobody' }),
  );
  expect(number).toBeNull();
  expect(faults.map(({ question, code }) => [intake.plan.questions[question]!.words, code])).toEqual([
    ['Plot number', 'missing'],
    ['E-mail address', 'not-an-address'],
    ['IBAN', 'odd'],
  ]);
  expect(faults[2]!.detail).toMatch(/check digits/);
});

test('an answer becomes copies that the visitor fetches, with the signature in its box, and is mailed; sent twice it is one', async () => {
  const first = await submit(2, answersOf());
  expect(first.faults).toEqual([]);
  const again = await submit(2, answersOf({ [idOf('Plot number')]: 'B-18' }));
  expect(again.number).toBe(first.number);
  const receipt = await (async () => {
    for (const end = Date.now() + PATIENCE; Date.now() < end;) {
      const now = await told<{ copies: string[]; isMaking: boolean }>(stranger('GET', `/receipts/${first.receipt}`));
      if (!now.isMaking && now.copies.length === 2) return now;
      await new Promise((done) => setTimeout(done, 150));
    }
    throw new Error(`The copies of the visitor were never made. ${mailbag.log()}`);
  })();
  expect(receipt.copies).toHaveLength(2);
  const files = unzipSync(new Uint8Array(await (await stranger('GET', `/receipts/${first.receipt}/copies.zip`)).arrayBuffer()));
  expect(Object.keys(files)).toHaveLength(2);
  const texts = await Promise.all(Object.values(files).map(async (bytes) => (await readByOther(bytes))[0]!.text));
  expect(texts.every((text) => text.includes('B-17') && text.includes('Ayumi Brandt'))).toBe(true);
  // The black of the drawing stands in the box of the signature.
  const mandate = Object.entries(files).find(([name]) => name.startsWith('Bank'))![1];
  expect(inkIn(await pictureOf(mandate), signatureBox)).toBeGreaterThan(500);
  const letters = await (async () => {
    for (const end = Date.now() + PATIENCE; Date.now() < end;) {
      const found = (await office.letters()).filter(({ to }) => to === 'ayumi@example.org');
      if (found.length > 0) return found;
      await new Promise((done) => setTimeout(done, 150));
    }
    throw new Error('The message never came.');
  })();
  expect(letters).toHaveLength(1);
  expect(letters[0]!.attachments).toHaveLength(2);
  const list = await mailbag.client.get<{ total: number; lines: { number: string; values: Record<string, string>; copies: number }[] }>(
    `/api/intakes/${intake.id}/submissions?from=0&count=10`,
  );
  expect(list.total).toBe(1);
  expect(list.lines[0]).toMatchObject({ number: first.number, copies: 2, values: { 'Plot number': 'B-17', Roof: 'Green roof' } });
});

test('a question that is hidden is neither asked for nor filled', async () => {
  const { faults, number } = await submit(3, answersOf({ [idOf('Greenhouse')]: 'no', [idOf('Roof')]: 'Green roof' }));
  expect(faults).toEqual([]);
  const list = await mailbag.client.get<{ lines: { number: string; values: Record<string, string> }[] }>(
    `/api/intakes/${intake.id}/submissions?from=0&count=10`,
  );
  expect(list.lines.find((one) => one.number === number)!.values).not.toHaveProperty('Roof');
});

test('what is published anew changes nothing for whoever has begun: they see and finish the version in which they began', async () => {
  const before = await edition();
  const { changesBetween } = await import('@mailbag/core');
  const { plan } = await mailbag.client.get<Intake>(`/api/intakes/${intake.id}`);
  const own = plan.questions[idOf('Plot number')]!;
  const next = { ...plan, questions: { ...plan.questions, [own.id]: { ...own, words: 'Which plot?' } } };
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/changes`, {
    changes: changesBetween(plan as never, next as never, () => false),
  });
  expect(await mailbag.client.get(`/api/intakes/${intake.id}`)).toMatchObject({ isAhead: true });
  const words = async (query = ''): Promise<string> => {
    const page = await told<{ plan: Plan }>(stranger('GET', `/intakes/${intake.word}${query}`));
    return page.plan.questions[own.id]!.words;
  };
  expect(await words()).toBe('Plot number');
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
  expect([await words(), await words(`?edition=${before}`)]).toEqual(['Which plot?', 'Plot number']);
  const taken = await told<{ number: string | null }>(
    stranger('POST', `/intakes/${intake.word}/submissions`, { edition: before, key: key(9), language: 'en', answers: answersOf() }),
  );
  expect(taken.number).not.toBeNull();
});

test('the records of an intake are what people answered, so no file takes their place and nobody removes them', async () => {
  const { client } = mailbag;
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', new TextEncoder().encode('Plot\nX-1\n'));
  await expect(client.send('PUT', `/api/sources/${intake.sourceId}/reading`, { fileIds: [fileId] })).rejects.toThrow(/come from no file/);
  await expect(client.send('DELETE', `/api/sources/${intake.sourceId}`)).rejects.toThrow('source-in-use');
});

test('the word can change, and the one before goes on leading there; a word of another intake and reserved ones are refused', async () => {
  const { client } = mailbag;
  intake = await client.send<Intake>('PUT', `/api/intakes/${intake.id}/word`, { word: 'plots-2027' });
  expect(intake).toMatchObject({ word: 'plots-2027', earlierWords: ['ask-for-a-plot'] });
  for (const word of ['plots-2027', 'ask-for-a-plot']) expect((await stranger('GET', `/intakes/${word}`)).status).toBe(200);
  const other = await client.send<Intake>('POST', '/api/intakes', { name: 'Ask for a plot', templates: [templates[1]] });
  expect(other.word).toBe('ask-for-a-plot-2');
  await expect(client.send('PUT', `/api/intakes/${other.id}/word`, { word: 'plots-2027' })).rejects.toThrow('intake-word-taken');
  for (const word of ['api', 'Plots', 'a', 'a--b', '../x', 'plots/'])
    await expect(client.send('PUT', `/api/intakes/${other.id}/word`, { word })).rejects.toThrow('intake-word-wrong');
  await client.send('DELETE', `/api/intakes/${other.id}`);
  await expect(client.send('DELETE', `/api/mailings/${intake.mailingId}`)).rejects.toThrow('mailing-has-intake');
});

test('answers go when their time is over, with their records and pictures; the page and its copies stay', async () => {
  const { client } = mailbag;
  const { total, lines } = await client.get<{ total: number; lines: { number: string }[] }>(
    `/api/intakes/${intake.id}/submissions?from=0&count=10`,
  );
  const oldest = lines.at(-1)!.number;
  const { pictures } = await client.get<{ pictures: number }>(`/api/sources/${intake.sourceId}`);
  mailbag.change('UPDATE submission SET receivedAt = ? WHERE number = ?', ['2020-01-01T00:00:00.000Z', oldest]);
  mailbag.change('UPDATE source SET readAt = ? WHERE id = ?', ['2020-01-01T00:00:00.000Z', intake.sourceId]);
  await client.send('PUT', '/api/retention', { recordDays: 0, copyDays: 0, sourceDays: 30 });
  expect(await client.send('POST', '/api/retention/run')).toMatchObject({ lastRun: { records: 1, sources: 0 } });
  const left = await client.get<{ total: number; lines: { number: string }[] }>(`/api/intakes/${intake.id}/submissions?from=0&count=10`);
  expect(left.total).toBe(total - 1);
  expect(left.lines.map(({ number }) => number)).not.toContain(oldest);
  expect(await client.get(`/api/sources/${intake.sourceId}`)).toMatchObject({ state: 'ready', count: total - 1, pictures: pictures - 1 });
  expect((await stranger('GET', `/intakes/${intake.word}`)).status).toBe(200);
  expect((await client.get<{ rows: unknown[] }>(`/api/copies?text=${oldest}&count=50`)).rows.length).toBeGreaterThan(0);
});
