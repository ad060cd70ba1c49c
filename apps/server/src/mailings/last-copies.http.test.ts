import type { CopyDetail, LastCopyAnswer, MailingDetail } from '@mailbag/contract';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

test('what of a record has changed since its last copy is told value by value, and nothing of one that has none', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['A-1', 'Quist', '', 'yes'], ['A-2', 'Brandt', '', 'no']], { mailed: false }); // prettier-ignore
  const lastOf = (index: number): Promise<LastCopyAnswer> => client.get(`/api/mailings/${mailing}/records/${index}/last-copy`);
  expect(await lastOf(0)).toMatchObject({ copy: null, changed: [] });
  await client.until<{ current: boolean }>(`/api/mailings/${mailing}/checks`, ({ current }) => current);
  const { id } = await startBatch(client, mailing, 'selection', [2]);
  await client.until<{ state: string }>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(await lastOf(0)).toMatchObject({ batch: 1, hasValues: true, changed: [] });

  const { plan } = await client.get<MailingDetail>(`/api/mailings/${mailing}`);
  await client.send('POST', `/api/sources/${plan.sourceId}/corrections`, { row: 2, column: 'Name', value: 'Quist-Ngo' });
  expect(await lastOf(0)).toMatchObject({ batch: 1, hasValues: true, changed: [{ column: 'Name', was: 'Quist', is: 'Quist-Ngo' }] });
  expect(await lastOf(1)).toMatchObject({ copy: null });

  // The copy that is made of it replaces the first one, and both say so.
  const again = await startBatch(client, mailing, 'changed');
  await client.until<{ state: string }>(`/api/batches/${again.id}`, ({ state }) => state === 'done');
  const [first, second] = [(await copiesOf(client, id))[0]!, (await copiesOf(client, again.id))[0]!];
  expect(await client.get<CopyDetail>(`/api/copies/${second.id}`)).toMatchObject({
    replaces: { id: first.id, code: first.code, changed: [{ column: 'Name', was: 'Quist', is: 'Quist-Ngo' }] },
    replacedBy: null,
  });
  expect(await client.get<CopyDetail>(`/api/copies/${first.id}`)).toMatchObject({
    replaces: null,
    replacedBy: { id: second.id, changed: null },
  });
  await expect(lastOf(7)).rejects.toThrow('not-found');
});
