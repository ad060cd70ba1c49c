import { request } from 'node:http';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { SmallIntake } from '../../../../testing/small-intake.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';

/** A visit that somebody goes on with by a link that was mailed to them. */
// Twice as much as usual: what is tried first must not use up what the last test counts.
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '2' });
let office: PostOffice;
let intake: SmallIntake;
let edition: number;
let idOf: (words: string) => string;
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  ({ intake, edition, idOf } = await smallIntake(mailbag.client));
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const KEY = 'k'.repeat(40);
const visit = (email: string, more: object = {}): object => ({
  edition,
  answers: { [idOf('Plot number')]: 'B-17', [idOf('Name of the tenant')]: 'https://evil.example Buy now' },
  key: KEY,
  step: 2,
  language: 'de',
  email,
  ...more,
});
const path = (rest = ''): string => `/api/public/intakes/${intake.word}/visits${rest}`;
const keep = (email: string, more?: object): Promise<Response> => stranger(mailbag.address, 'POST', path(), visit(email, more));
const goOn = (token: string): Promise<Response> => stranger(mailbag.address, 'POST', path('/saved'), { token });
async function mailTo(address: string): Promise<string> {
  const found = (await office.letters()).filter(({ to }) => to === address);
  return Buffer.from(await office.raw(found.at(-1)!.id)).toString('utf8');
}

test('the link brings back what was typed, in the version in which it was begun, and holds as many days as the office says', async () => {
  expect((await keep('ada@example.org')).status).toBe(204);
  const mail = await mailTo('ada@example.org');
  expect(mail).toMatch(/Subject: Weitermachen mit: Permits/);
  const token = /#([\w-]{43})/.exec(mail.replaceAll('=\r\n', ''))![1]!;
  expect(await (await goOn(token)).json()).toEqual({ edition, answers: (visit('') as { answers: object }).answers, step: 2, key: KEY });
  mailbag.change('UPDATE saved_visit SET until = ?', ['2020-01-01T00:00:00.000Z']);
  expect((await goOn(token)).status).toBe(404);
});

test('nothing of what a visitor types stands in the message, so that nobody can have it say what they like', async () => {
  const mail = await mailTo('ada@example.org');
  expect(mail).not.toMatch(/evil|Buy now|B-17/);
});

test('a link is asked for by its token, of which only the digest is kept', async () => {
  await keep('bo@example.org');
  const token = /#([\w-]{43})/.exec((await mailTo('bo@example.org')).replaceAll('=\r\n', ''))![1]!;
  const database = mailbag.beside();
  const rows = database.prepare('SELECT * FROM saved_visit').all() as object[];
  database.close();
  expect(JSON.stringify(rows)).not.toContain(token);
  for (const wrong of [`${token.slice(0, -1)}x`, 'a'.repeat(43)]) if (wrong !== token) expect((await goOn(wrong)).status).toBe(404);
  expect((await goOn('short')).status).toBe(400);
});

test('who gives another name for this site has no link mailed that leads there', async () => {
  const { port } = new URL(mailbag.address);
  const body = JSON.stringify(visit('cy@example.org'));
  const status = await new Promise<number>((done, fail) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port,
        path: path(),
        method: 'POST',
        headers: { Host: 'evil.example', 'X-Mailbag': '1', 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) },
      },
      (answer) => (answer.resume(), done(answer.statusCode!)),
    );
    asked.on('error', fail);
    asked.end(body);
  });
  expect(status).toBe(409);
  expect((await office.letters()).filter(({ to }) => to === 'cy@example.org')).toEqual([]);
});

test('addresses that are none, and several in one, are mailed nothing', async () => {
  for (const email of ['nobody', 'a@example.org, b@example.org', 'a@example.org\r\nBcc: b@example.org'])
    expect((await keep(email)).status).toBe(409);
});

test('nobody is mailed more than a few links, and nobody has many mailed', async () => {
  const answers = await Promise.all(Array.from({ length: 8 }, (_, at) => keep(`many${at}@example.org`)));
  expect(answers.filter(({ status }) => status === 429).length).toBeGreaterThanOrEqual(6);
});
