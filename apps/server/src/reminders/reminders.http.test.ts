import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
// A day of reminders takes a second.
const mailbag = new RunningMailbag({ MAILBAG_REMINDER_PACE: String(1 / 86_400) });
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const reminder = {
  subject: 'Reminder: plot {{ plot }}',
  body: 'Dear {{ name }}, please send it back.',
  afterDays: 2,
  maximum: 2,
  bySchedule: false,
  attach: true,
};
async function sent(folder: string, more: object): Promise<{ mailing: number; batch: number }> {
  const { client } = mailbag;
  const { mailing } = await smallMailing(
    client,
    [
      ['R-1', 'Out', `${folder}.out@example.org`, 'yes'],
      ['R-2', 'Answered', `${folder}.answered@example.org`, 'yes'],
      ['R-3', 'Bounced', `unknown.${folder}@example.org`, 'yes'],
    ],
    { folder },
  );
  const { version, plan } = await client.get<{ version: number; plan: { message: object } }>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: { ...plan, message: { ...plan.message, reminder: { ...reminder, ...more } } },
  });
  const { id: batch } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${batch}`, ({ state }) => state === 'done');
  // One copy has come back.
  const answered = (await copiesOf(client, batch)).find(({ address }) => address.includes('answered'))!;
  mailbag.change("UPDATE copy SET state = 'returned' WHERE id = ?", [answered.id]);
  return { mailing, batch };
}
const reminded = async (folder: string): Promise<string[]> =>
  (await office.letters()).filter(({ subject, to }) => subject.startsWith('Reminder') && to.includes(folder)).map(({ to }) => to);

test('only those whose copy is out are reminded, with the copy again, and the story tells it', async () => {
  const { mailing, batch } = await sent('once', {});
  expect(await mailbag.client.get(`/api/mailings/${mailing}/reminders`)).toMatchObject({ out: 1, reminded: 0 });
  expect(await mailbag.client.send('POST', `/api/mailings/${mailing}/remind`, { all: true })).toEqual({ reminded: 1 });
  const out = (await copiesOf(mailbag.client, batch)).find(({ address }) => address === 'once.out@example.org')!;
  const copy = await mailbag.client.until<{ state: string; events: { event: string; detail: string }[] }>(
    `/api/copies/${out.id}`,
    ({ events }) => events[0]!.event === 'remind',
  );
  expect(copy.state).toBe('sent');
  expect(await reminded('once')).toEqual(['once.out@example.org']);
  const letter = (await office.letters()).find(({ subject }) => subject === 'Reminder: plot R-1')!;
  expect(letter.attachments.map(({ name }) => name)).toEqual(['R-1.pdf']);
  expect(await mailbag.client.get(`/api/mailings/${mailing}/reminders`)).toMatchObject({ out: 1, reminded: 1 });
});

test('by a schedule they go out by themselves, as often as was said and no oftener', async () => {
  await sent('bytime', { bySchedule: true, attach: false });
  for (let tries = 0; (await reminded('bytime')).length < 2; tries++) {
    if (tries > 100) throw new Error(`Only ${(await reminded('bytime')).length} reminders went out`);
    await new Promise((done) => setTimeout(done, 200));
  }
  await new Promise((done) => setTimeout(done, 5000));
  expect(await reminded('bytime')).toEqual(['bytime.out@example.org', 'bytime.out@example.org']);
});

test('without a text nobody is reminded', async () => {
  const { mailing } = await smallMailing(mailbag.client, [['N-1', 'No', 'no.text@example.org', 'yes']], { folder: 'none' });
  await expect(mailbag.client.send('POST', `/api/mailings/${mailing}/remind`, { all: true })).rejects.toThrow('reminder-no-text');
});
