import { randomBytes } from 'node:crypto';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { SmallIntake } from '../../../../testing/small-intake.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';

// Who is let in to a page, and how often one address answers. Ten times as much as usual may come from here, so that no device works for what it sends.
const SCALE = 10;
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: String(SCALE) });
let intake: SmallIntake;
let edition: number;
let answers: Record<string, string>;
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  const small = await smallIntake(mailbag.client);
  ({ intake } = small);
  answers = { [small.idOf('Plot number')]: 'B-17', [small.idOf('E-mail address')]: 'ayumi@example.org' };
  await setOpening({ passPhrase: 'Larkmere rosé', oncePerAddress: true });
  ({ edition } = (await (await ask('GET', '', undefined, 'Larkmere rosé')).json()) as { edition: number });
});
afterAll(() => mailbag.close());

async function setOpening(next: Record<string, unknown>): Promise<void> {
  const { plan } = await mailbag.client.get<SmallIntake>(`/api/intakes/${intake.id}`);
  const changes = Object.entries(next).map(([name, is]) => {
    const was = plan.opening[name];
    return { kind: 'set', place: ['opening', name], ...(was !== undefined && { was }), is };
  });
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/changes`, { changes });
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
}
const ask = (method: string, path: string, body?: unknown, phrase?: string): Promise<Response> =>
  stranger(mailbag.address, method, `/api/public/intakes/${intake.word}${path}`, body, {
    ...(phrase !== undefined && { 'X-Mailbag-Phrase': encodeURIComponent(phrase) }),
  });
const submission = (more: Record<string, string> = {}, key = randomBytes(16).toString('hex')) => ({
  edition,
  language: 'en',
  key,
  answers: { ...answers, ...more },
});
interface Taken {
  number: string | null;
  faults: { question: string; code: string }[];
}
const submit = async (body: ReturnType<typeof submission>): Promise<Taken> =>
  (await (await ask('POST', '/submissions', body, 'larkmere rosé')).json()) as Taken;

test.each([
  ['the page', 'GET', ''],
  ['the boxes of its forms', 'GET', '/boxes?edition=1'],
  ['the checks of answers', 'POST', '/check'],
  ['the filled form', 'POST', '/preview/0'],
  ['a link to go on', 'POST', '/visits'],
  ['answers', 'POST', '/submissions'],
])('whoever does not say the pass phrase gets nothing: %s', async (_, method, path) => {
  const body = { ...submission(), step: 0, email: 'ayumi@example.org' };
  const refused = await ask(method, path, method === 'POST' ? body : undefined);
  expect([refused.status, await refused.text()]).toEqual([403, expect.stringContaining('intake-phrase')]);
});

test('the phrase is known however it is capitalised, tells nothing of itself, and is told to nobody by the page', async () => {
  const page = await ask('GET', '', undefined, ' LARKMERE ROSÉ ');
  expect(page.status).toBe(200);
  expect(await page.text()).not.toMatch(/rosé/i);
  const wrong = await ask('GET', '', undefined, 'larkmere');
  expect([wrong.status, await wrong.text()]).toEqual([403, expect.stringContaining('not the pass phrase')]);
  // A header that is no text at all is a wrong phrase, and no failure of the server.
  const odd = await stranger(mailbag.address, 'GET', `/api/public/intakes/${intake.word}`, undefined, { 'X-Mailbag-Phrase': '%E0%A4%A' });
  expect(odd.status).toBe(403);
});

test('one address answers once, however it is capitalised; the same sent again is the same; of two at a time one is taken', async () => {
  const first = submission();
  const { number } = await submit(first);
  expect(number).not.toBeNull();
  expect((await submit(first)).number).toBe(number);
  const mail = Object.keys(answers)[1]!;
  expect(await submit(submission({ [mail]: 'AYUMI@example.org' }))).toMatchObject({
    number: null,
    faults: [{ question: mail, code: 'answered-already' }],
  });
  const both = await Promise.all([submission({ [mail]: 'b@example.org' }), submission({ [mail]: 'b@example.org' })].map(submit));
  expect(both.filter((one) => one.number !== null)).toHaveLength(1);
  await setOpening({ oncePerAddress: false });
  // Who has begun before finishes as they began.
  expect((await submit(submission())).number).toBeNull();
  ({ edition } = (await (await ask('GET', '', undefined, 'larkmere rosé')).json()) as { edition: number });
  expect((await submit(submission())).number).not.toBeNull();
});

test('an address that stands at a question which is not asked any more counts for nothing', async () => {
  const { plan } = await mailbag.client.get<SmallIntake>(`/api/intakes/${intake.id}`);
  const idOf = (column: string): string => Object.values(plan.questions).find((one) => one.column === column)!.id;
  const [mail, greenhouse] = [idOf('E-mail address'), idOf('Greenhouse')];
  const is = { of: { kind: 'column', column: 'Greenhouse' }, test: 'is', values: ['yes'] };
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/changes`, {
    changes: [{ kind: 'set', place: ['questions', mail, 'when'], was: null, is }],
  });
  await setOpening({ oncePerAddress: true });
  ({ edition } = (await (await ask('GET', '', undefined, 'larkmere rosé')).json()) as { edition: number });
  const from = (answer: string): Promise<Taken> => submit(submission({ [greenhouse]: answer, [mail]: 'hidden@example.org' }));
  for (let times = 0; times < 2; times++) expect((await from('no')).number).not.toBeNull();
  expect((await from('yes')).number).not.toBeNull();
  expect(await from('yes')).toMatchObject({ number: null, faults: [{ question: mail, code: 'answered-already' }] });
});

test('it is published, and tried, while answers come in', async () => {
  await setOpening({ oncePerAddress: false });
  const coming = Promise.all(Array.from({ length: 12 }, () => submit(submission())));
  for (let times = 0; times < 6; times++) {
    await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
    await mailbag.client.send('POST', `/api/intakes/${intake.id}/trial`, { answers, mailed: false });
  }
  expect((await coming).filter(({ number }) => number === null)).toEqual([]);
});

// Last: it shuts this address out for a while.
test('it cannot be guessed: after ten tries nothing is told any more, not even that the right one is right', async () => {
  const statusOf = async (phrase: string): Promise<number> => (await ask('GET', '', undefined, phrase)).status;
  expect(await statusOf('guess')).toBe(403);
  await Promise.all(Array.from({ length: 12 * SCALE }, (_, at) => statusOf(`guess ${at}`)));
  expect(await statusOf('guess')).toBe(429);
  expect((await ask('GET', '', undefined, 'larkmere rosé')).status).toBe(429);
});
