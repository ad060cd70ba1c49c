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
  ['a pattern that names a missing column', { folder: '', file: '{{ plott }}' }, 'names plott, which is not a column'],
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

describe('changes are made in whatever version is there', () => {
  interface Answer {
    version: number;
    plan: Detail['plan'] & { name: string; maps: Record<string, Record<string, unknown>> };
    clashes: unknown[];
  }
  const change = (mailing: number, ...changes: object[]): Promise<Answer> =>
    mailbag.client.send<Answer>('POST', `/api/mailings/${mailing}/changes`, { changes });
  const set = (place: string[], was: unknown, is: unknown): object => ({ kind: 'set', place, was, is });
  let mailing: number;
  let template: number;
  beforeAll(async () => {
    ({ mailing, template } = await smallMailing(mailbag.client, [['E-1', 'Q', 'a@example.org', 'yes']]));
  });

  test('two at once keep both, and the same twice is made once', async () => {
    const before = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
    const [one, two] = await Promise.all([
      change(mailing, set(['name'], 'Permits', 'Renewals')),
      change(mailing, set(['output', 'folder'], 'Permits', '2027'), { kind: 'insert', place: ['leftOut'], value: 2, after: null }),
    ]);
    expect([...one.clashes, ...two.clashes]).toEqual([]);
    const now = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
    expect(now).toMatchObject({ version: before.version + 2, plan: { name: 'Renewals', leftOut: [2], output: { folder: '2027' } } });
    // The answer was lost, and it is sent again.
    expect(await change(mailing, set(['name'], 'Permits', 'Renewals'))).toMatchObject({ version: now.version, clashes: [] });
  });

  test('ten windows at once lose nothing', async () => {
    const rows = Array.from({ length: 10 }, (_, index) => index + 10);
    await Promise.all(rows.map((row) => change(mailing, { kind: 'insert', place: ['leftOut'], value: row, after: null })));
    const { plan } = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
    expect([...plan.leftOut].sort((a, b) => a - b)).toEqual([2, ...rows]);
  });

  test('what was changed elsewhere stays, and both values are told', async () => {
    const { plan, clashes } = await change(
      mailing,
      set(['name'], 'Permits', 'Mine'),
      set(['output', 'file'], '{{ plot }}.pdf', '{{ code }}.pdf'),
    );
    expect(plan).toMatchObject({ name: 'Renewals', output: { file: '{{ code }}.pdf' } });
    expect(clashes).toEqual([{ place: ['name'], mine: 'Mine', theirs: 'Renewals' }]);
  });

  test.each([
    ['a plan without a name', () => [set(['name'], 'Renewals', '')], /name/],
    [
      'a rule that is none',
      () => [set(['maps', String(template), 'permit.plot'], { kind: 'column', column: 'Plot' }, { kind: 'magic' })],
      /magic/,
    ],
    ['a value of another kind', () => [set(['leftOut'], undefined, 'all'), set(['packet'], [template], 'all')], /packet/],
    ['something that is no change', () => [{ kind: 'set', place: 'name' }], /not a change/],
  ])('%s is refused with a sentence, and nothing of it is made', async (_, changes, sentence) => {
    const before = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
    await expect(change(mailing, ...changes())).rejects.toThrow(sentence);
    expect(await mailbag.client.get<Detail>(`/api/mailings/${mailing}`)).toEqual(before);
  });

  test('what comes as a member of every object makes nothing else of the plan', async () => {
    const { plan } = await change(
      mailing,
      set(['maps', '__proto__', 'x'], undefined, { kind: 'blank' }),
      set(['__proto__', 'x'], undefined, 1),
    );
    expect(({} as Record<string, unknown>).x).toBeUndefined();
    expect(plan).toMatchObject({ name: 'Renewals' });
  });

  test('windows that have it open know of each other', async () => {
    const here = (window: string, leaves = false): Promise<{ others: string[]; elsewhere: boolean }> =>
      mailbag.client.send('POST', `/api/mailings/${mailing}/here`, { window, leaves });
    expect(await here('window-one')).toEqual({ others: [], elsewhere: false });
    expect(await here('window-two')).toEqual({ others: [], elsewhere: true });
    expect(await here('window-one')).toEqual({ others: [], elsewhere: true });
    await here('window-two', true);
    expect(await here('window-one')).toEqual({ others: [], elsewhere: false });
  });
});
