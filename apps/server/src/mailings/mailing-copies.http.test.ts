import type { LearnedAnswer, MailingDetail } from '@mailbag/contract';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

type Checks = { current: boolean; looked: number; groups: { code: string; severity: string; accepted: number }[] };
const checked = (id: number): Promise<Checks> => mailbag.client.until<Checks>(`/api/mailings/${id}/checks`, ({ current }) => current);

test('a mailing that begins as an earlier one brings everything along but what was said of single rows', async () => {
  const { client } = mailbag;
  const { mailing, template } = await smallMailing(client, [
    ['A-1', 'Quist', 'a@example.org', 'yes'],
    ['A-2', 'Brandt', '', 'no'],
    ['A-3', 'Ngo', 'c@example.org', 'no'],
  ]);
  await checked(mailing);
  // A person has looked: A-2 has no address, and that is right.
  await client.send('POST', `/api/mailings/${mailing}/acceptances`, {
    looks: [{ row: 3, code: 'address-missing', column: 'Mail', field: null }],
    reason: 'Comes in person',
  });
  const before = await client.get<MailingDetail>(`/api/mailings/${mailing}`);
  const condition = { of: { kind: 'column', column: 'Shed' }, test: 'not-empty' };
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version: before.version,
    plan: {
      ...before.plan,
      leftOut: [4],
      conditions: { [template]: condition },
      message: { ...before.plan.message, startAt: '2027-03-01T08:00:00Z' },
    },
  });
  const earlier = await client.get<MailingDetail>(`/api/mailings/${mailing}`);
  const begun = await client.send<MailingDetail>('POST', '/api/mailings', { name: ' Permits 2028 ', from: mailing });
  const { startAt: _startAt, ...message } = earlier.plan.message;
  expect(begun.plan).toEqual({ ...earlier.plan, name: 'Permits 2028', leftOut: [], message });
  expect(begun.templates.map(({ revisionId }) => revisionId)).toEqual(earlier.templates.map(({ revisionId }) => revisionId));
  expect(begun.batches).toEqual([]);
  const { looked, groups } = await checked(begun.id);
  expect(looked).toBe(0);
  expect(groups.find(({ code }) => code === 'address-missing')).toMatchObject({ accepted: 1 });
  // The earlier one is as it was.
  expect((await client.get<MailingDetail>(`/api/mailings/${mailing}`)).plan).toEqual(earlier.plan);
});

test('what the office did with a form before is told for the next mailing that fills it', async () => {
  const { client } = mailbag;
  const { template } = await smallMailing(client, [['B-1', 'Quist', 'a@example.org', 'yes']]);
  const { id, version, plan } = await client.send<MailingDetail>('POST', '/api/mailings', { name: 'Next' });
  await client.send('PUT', `/api/mailings/${id}`, { version, plan: { ...plan, packet: [template] } });
  const { items } = await client.get<LearnedAnswer>(`/api/mailings/${id}/learned`);
  expect(items).toContainEqual({
    template,
    field: 'permit.name',
    rule: { kind: 'column', column: 'Name' },
    mailing: 'Permits',
    isSameForm: true,
  });
});

test.each([
  [{ name: 'After nothing', from: 9999 }, 'not-found'],
  [{ name: '   ', from: 1 }, 'mailing-name-empty'],
])('%j is refused', async (body, code) => {
  await expect(mailbag.client.send('POST', '/api/mailings', body)).rejects.toThrow(code);
});
