import { simpleParser } from 'mailparser';
import { readByOther } from '../../../../testing/other-reader.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { SmallIntake } from '../../../../testing/small-intake.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';
import { until } from '../../../../testing/until.js';

/** What the office is mailed of each answer: once, with the answers as a table, and with the copies. */
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '1000', MAILBAG_RETRY_PACE: '0.02' });
let office: PostOffice;
let intake: SmallIntake;
let edition: number;
let idOf: (words: string) => string;
let last = 0;

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  ({ intake, edition, idOf } = await smallIntake(mailbag.client, 'Permits'));
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

/** Has the office told of what is answered from now on. */
async function tell(notice: Record<string, unknown> | null): Promise<void> {
  const { plan } = await mailbag.client.get<{ plan: { after: object } }>(`/api/intakes/${intake.id}`);
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/changes`, {
    changes: [{ kind: 'set', place: ['after'], was: plan.after, is: { ...plan.after, notice } }],
  });
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
  ({ edition } = (await (await stranger(mailbag.address, 'GET', `/api/public/intakes/${intake.word}`)).json()) as { edition: number });
}
const submit = async (name: string, email = ''): Promise<string> => {
  const answers = { [idOf('Plot number')]: 'B-17', [idOf('Name of the tenant')]: name, [idOf('E-mail address')]: email || `v${++last}@example.org` }; // prettier-ignore
  const body = { edition, key: `visitor-of-the-notices-${++last}`, language: 'en', answers };
  const told = await stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/submissions`, body);
  return ((await told.json()) as { number: string }).number;
};
const noticesTo = async (address: string) => (await office.letters()).filter(({ to }) => to.includes(address));
const stateOf = async (number: string): Promise<string> => {
  const { lines } = await mailbag.client.get<{ lines: { number: string; notice: string }[] }>(
    `/api/intakes/${intake.id}/submissions?from=0&count=50`,
  );
  return lines.find((line) => line.number === number)!.notice;
};
const notice = { to: 'desk@larkmere.example', subject: 'Asked for: {{ plot_number }}', body: '<p>From {{ name_of_the_tenant }}.</p>', attach: 'files' }; // prettier-ignore

test('nobody is told where it is not wanted', async () => {
  const number = await submit('Ada Quist');
  expect(await stateOf(number)).toBe('none');
});

test('the office reads who answered what in a table, with the copies beside, and what strangers type is only text', async () => {
  await tell(notice);
  const name = '<b>Ada</b> <img src=x onerror=alert(1)> {{ code }}';
  const number = await submit(name);
  await until(async () => (await noticesTo(notice.to)).length === 1, 'the office was told');
  const [letter] = await noticesTo(notice.to);
  const { subject, html, text, attachments } = await simpleParser(await office.raw(letter!.id));
  expect(subject).toBe('Asked for: B-17');
  expect(html).toContain('<th scope="row"');
  expect(html).not.toMatch(/<b>Ada|<img/);
  expect(text).toContain(`Number: ${number}`);
  expect(text).toContain(`Name of the tenant: ${name}`);
  expect(attachments.map(({ contentType }) => contentType)).toEqual(['application/pdf']);
  expect((await readByOther(new Uint8Array(attachments[0]!.content)))[0]!.text).toContain('B-17');
  expect(await stateOf(number)).toBe('sent');
});

test('the copies go along as one zip, or not at all', async () => {
  await tell({ ...notice, to: 'zip@larkmere.example, none@larkmere.example', attach: 'zip' });
  await submit('Bea Holm');
  await until(async () => (await noticesTo('none@larkmere.example')).length === 1, 'both addresses were told');
  expect((await noticesTo('zip@larkmere.example'))[0]!.attachments.map(({ type }) => type)).toEqual(['application/zip']);
  await tell({ ...notice, to: 'bare@larkmere.example', attach: 'none' });
  await submit('Cleo Brandt');
  await until(async () => (await noticesTo('bare@larkmere.example')).length === 1, 'the office was told without copies');
  expect((await noticesTo('bare@larkmere.example'))[0]!.attachments).toEqual([]);
});

test('a mail server that is busy is asked again, and the office is told once', async () => {
  await tell({ ...notice, to: 'later@larkmere.example' });
  const number = await submit('Dora Falk');
  await until(async () => (await stateOf(number)) === 'sent', 'the third try was taken');
  expect(await noticesTo('later@larkmere.example')).toHaveLength(1);
});

test('where nobody knows whether it arrived, it is said, and it is not sent again: a broken connection, and a server that falls', async () => {
  await tell({ ...notice, to: 'drop@larkmere.example' });
  const broken = await submit('Eva Lind');
  await until(async () => (await stateOf(broken)) === 'unknown', 'the broken connection was noticed');
  await tell({ ...notice, to: 'slow@larkmere.example' });
  const fallen = await submit('Finn Moor');
  await until(async () => (await stateOf(fallen)) === 'sending', 'the notice was on its way');
  await mailbag.kill();
  await mailbag.startAgain();
  await until(async () => (await stateOf(fallen)) === 'unknown', 'the fall was noticed');
  const before = (await noticesTo('drop@larkmere.example')).length;
  // Another answer goes its way, past those that are not sent again.
  await tell({ ...notice, to: 'after@larkmere.example' });
  const next = await submit('Gudrun Hale');
  await until(async () => (await stateOf(next)) === 'sent', 'the next one was sent');
  expect([await stateOf(broken), await stateOf(fallen)]).toEqual(['unknown', 'unknown']);
  expect((await noticesTo('drop@larkmere.example')).length).toBe(before);
});
