import type { Challenge } from 'altcha-lib';
import { solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/sha';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';

/** Who sends much has their device work for it. */
const mailbag = new RunningMailbag();
let path: string;
let edition: number;
let answers: Record<string, string>;
let last = 0;

beforeAll(async () => {
  await (await mailbag.start()).setUp();
  const made = await smallIntake(mailbag.client, 'Permits');
  edition = made.edition;
  path = `/api/public/intakes/${made.intake.word}`;
  answers = { [made.idOf('Plot number')]: 'B-17', [made.idOf('Name of the tenant')]: 'Ada Quist', [made.idOf('E-mail address')]: 'a@example.org' }; // prettier-ignore
});
afterAll(() => mailbag.close());
const submit = (headers: Record<string, string> = {}): Promise<Response> =>
  stranger(mailbag.address, 'POST', `${path}/submissions`, { edition, key: `somebody-who-sends-much-${++last}`, language: 'en', answers }, headers); // prettier-ignore

test('the first three go through as they are; the next one is taken once its device has solved a puzzle, and each puzzle once', async () => {
  // At the same time, since what was given comes back after a while.
  const many = await Promise.all(Array.from({ length: 8 }, () => submit()));
  expect(many.filter(({ status }) => status === 200).length).toBeGreaterThanOrEqual(3);
  const refused = many.filter(({ status }) => status === 428);
  expect(await refused[0]!.text()).toContain('intake-puzzle');
  // It holds whether or not one is asked for just then.
  const challenge = (await (await stranger(mailbag.address, 'GET', `${path}/puzzle`)).json()) as Challenge;
  const solution = await solveChallenge({ challenge, deriveKey });
  const proof = { 'X-Mailbag-Proof': Buffer.from(JSON.stringify({ challenge, solution })).toString('base64') };
  const taken = await submit(proof);
  expect([taken.status, ((await taken.json()) as { faults: unknown[] }).faults]).toEqual([200, []]);
  // What came back while the puzzle was solved is used up first.
  await Promise.all(Array.from({ length: 8 }, () => submit()));
  const wrong = [proof['X-Mailbag-Proof'], '', 'e30=', '%', 'A'.repeat(5000)];
  const again = await Promise.all([...wrong, ...wrong].map((one) => submit({ 'X-Mailbag-Proof': one })));
  expect(again.filter(({ status }) => status === 428).length).toBeGreaterThanOrEqual(8);
});
