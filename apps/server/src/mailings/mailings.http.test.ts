import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

interface Detail {
  version: number;
  plan: { leftOut: number[]; output: { folder: string; file: string } } & Record<string, unknown>;
}

test('stops hold records back, leaving one of a double key out frees the other, and only the rest runs', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(
    client,
    [
      ['A-1', 'Quist', 'a@example.org', 'yes'],
      ['A-1', 'Bae', 'b@example.org', 'no'],
      ['A-3', 'Ngo', 'not an address', 'no'],
      ['A-4', 'Brace', 'd@example.org', 'perhaps'],
      ['A-5', 'Keawe', '', 'no'],
    ],
    { mailed: true },
  );
  type Checks = { current: boolean; stopped: number; looked: number; groups: { code: string }[] };
  const checks = await client.until<Checks>(`/api/mailings/${mailing}/checks`, ({ current }) => current);
  expect(checks).toMatchObject({ stopped: 4, looked: 1 });
  expect(checks.groups.map(({ code }) => code).sort()).toEqual(['address-missing', 'address-wrong', 'key-twice', 'untranslated']);

  const before = await client.get<Detail>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version: before.version,
    plan: { ...before.plan, leftOut: [3], message: { ...(before.plan.message as object), mailed: false } },
  });
  expect(await client.until<Checks>(`/api/mailings/${mailing}/checks`, ({ current }) => current)).toMatchObject({ stopped: 1 });
  const batch = await startBatch<{ id: number }>(client, mailing);
  const done = await client.until<{ state: string; records: number }>(`/api/batches/${batch.id}`, ({ state }) => state === 'done');
  expect(done.records).toBe(3);
});

test('a change made on top of an older version is refused, and nothing is lost', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['B-1', 'Q', 'a@example.org', 'yes']]);
  const { version, plan } = await client.get<Detail>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, name: 'First' } });
  await expect(client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, name: 'Second' } })).rejects.toThrow(
    'mailing-changed-elsewhere',
  );
  expect(await client.get<Detail>(`/api/mailings/${mailing}`)).toMatchObject({ plan: { name: 'First' } });
});

test.each([
  ['a pattern that names a missing column', { folder: '', file: '{{ plott }}' }, 'names plott, which is no column'],
  ['a pattern that climbs out of the archive', { folder: '../../etc', file: 'x' }, 'leads out of the archive'],
])('%s stops the batch before it begins', async (_, output, sentence) => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['C-1', 'Q', 'a@example.org', 'yes']], { mailed: false });
  const { version, plan } = await client.get<Detail>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, output } });
  await expect(startBatch(client, mailing)).rejects.toThrow(sentence);
});

test('a batch that is to be mailed says when there is no mail server', async () => {
  const { mailing } = await smallMailing(mailbag.client, [['D-1', 'Q', 'a@example.org', 'yes']]);
  await expect(startBatch(mailbag.client, mailing)).rejects.toThrow('No mail server is set up');
});
