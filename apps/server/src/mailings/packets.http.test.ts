import { startBatch } from '../../../../demo/src/start-batch.js';
import { shedPermit } from '../../../../demo/src/forms/shed-permit.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

/** A template of the packet that only some records get. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

interface Detail {
  version: number;
  plan: { packet: number[]; maps: Record<string, object> } & Record<string, unknown>;
}

async function withSecond(rows: [string, string, string, string][], condition: object): Promise<{ mailing: number; second: number }> {
  const { mailing, template } = await smallMailing(mailbag.client, rows, { mailed: false, folder: `C${rows.length}` });
  const { template: second } = await mailbag.client.upload<{ template: { id: number } }>('/api/templates', 'second.pdf', shedPermit(2028));
  const { version, plan } = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      ...plan,
      packet: [template, second.id],
      maps: {
        ...plan.maps,
        [second.id]: { 'form2028.name': { kind: 'column', column: 'Name' }, 'form2028.plot': { kind: 'column', column: 'Plot' } },
      },
      conditions: { [second.id]: condition },
    },
  });
  return { mailing, second: second.id };
}
const shed = { of: { kind: 'column', column: 'Shed' }, test: 'is', values: ['yes'] };

test('only those for whom the condition holds get the template, and the start says how many copies that are', async () => {
  const { mailing, second } = await withSecond(
    [
      ['A-1', 'Ada', '', 'yes'],
      ['A-2', 'Bea', '', 'no'],
      ['A-3', 'Cleo', '', 'no'],
    ],
    shed,
  );
  const shown = await mailbag.client.send<{ records: number; copies: number }>('POST', `/api/mailings/${mailing}/start`, { who: 'new' });
  expect(shown).toMatchObject({ records: 3, copies: 4 });
  const { id } = await startBatch(mailbag.client, mailing);
  expect(await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done')).toMatchObject({ records: 3, copies: 4 });
  const { rows } = await mailbag.client.get<{ rows: { recipient: string; templateName: string }[] }>(`/api/copies?batch=${id}`);
  expect(rows.filter(({ templateName }) => templateName === 'second')).toHaveLength(1);

  // A column of the condition that is renamed is followed, and its value is one that copies hang on.
  const { plan } = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
  expect(plan.conditions).toEqual({ [second]: shed });
});

test('a record that gets nothing at all, or for which it cannot be told, is held back with the reason', async () => {
  const { mailing, second } = await withSecond([['B-1', 'Ada', '', 'yes'], ['B-2', 'Bea', '', 'no']], shed); // prettier-ignore
  const { version, plan } = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
  const put = (conditions: object, at: number): Promise<{ version: number }> =>
    mailbag.client.send('PUT', `/api/mailings/${mailing}`, { version: at, plan: { ...plan, packet: [second], conditions } });
  const codes = async (): Promise<string[]> =>
    (
      await mailbag.client.until<{ current: boolean; groups: { code: string }[] }>(
        `/api/mailings/${mailing}/checks`,
        ({ current }) => current,
      )
    ).groups.map(({ code }) => code);
  const saved = await put({ [second]: shed }, version);
  expect(await codes()).toContain('no-template');
  await put({ [second]: { of: { kind: 'column', column: 'Shed' }, test: 'over', number: '3' } }, saved.version);
  expect(await codes()).toContain('condition-unclear');
});

test('a condition with a part missing is refused, and nothing of the plan is changed', async () => {
  const rows: [string, string, string, string][] = [['C-1', 'Ada', '', 'yes']];
  await expect(withSecond(rows, { of: { kind: 'column', column: 'Shed' }, test: 'shines' })).rejects.toThrow('condition-unknown');
});
