import type { MailingChangeLine, MailingDetail, MailingSummary } from '@mailbag/contract';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => void (await (await mailbag.start()).setUp()));
afterAll(() => mailbag.close());
const read = (id: number) => mailbag.client.get<MailingDetail>(`/api/mailings/${id}`);
const save = async (id: number, change: (plan: MailingDetail['plan']) => object): Promise<void> => {
  const { version, plan } = await read(id);
  await mailbag.client.send('PUT', `/api/mailings/${id}`, { version, plan: change(plan) });
};
const changes = (id: number) => mailbag.client.get<MailingChangeLine[]>(`/api/mailings/${id}/changes`);

test('what is changed in one go is one line with a way back, and from that another one', async () => {
  const { mailing, template } = await smallMailing(mailbag.client, [['P-1', 'Ada', 'ada@example.org', 'yes']]);
  const [first] = await changes(mailing);
  const before = (await read(mailing)).plan;
  await save(mailing, (plan) => ({ ...plan, maps: { [template]: {} }, output: { ...plan.output, openPassword: 'a fixed password' } }));
  await save(mailing, (plan) => ({ ...plan, name: 'Emptied' }));
  // The same person within minutes: it goes on with what the mailing began as.
  expect((await changes(mailing)).map(({ id }) => id)).toEqual([first!.id]);
  expect((await changes(mailing))[0]!.parts).toEqual(expect.arrayContaining(['map', 'output', 'name']));
  await mailbag.client.send('POST', `/api/mailings/${mailing}/changes/${first!.id}/back`, {});
  expect((await read(mailing)).plan).toMatchObject({ name: 'Permits', packet: [], sourceId: null, maps: {} });
  const [newest] = await changes(mailing);
  await mailbag.client.send('POST', `/api/mailings/${mailing}/changes/${newest!.id}/back`, {});
  const { plan } = await read(mailing);
  expect(plan).toMatchObject({ name: 'Emptied', packet: before.packet, sourceId: before.sourceId });
  // The password came along though it is kept encrypted.
  expect(plan.output.openPassword).toBe('a fixed password');
  await expect(mailbag.client.send('POST', `/api/mailings/${mailing}/changes/99999/back`, {})).rejects.toThrow('404');
});

test('what is gone since is left out on the way back', async () => {
  const { mailing, template } = await smallMailing(mailbag.client, [['P-1', 'Ada', 'ada@example.org', 'yes']]);
  const { sourceId } = (await read(mailing)).plan;
  await mailbag.client.send('POST', `/api/mailings/${mailing}/changes/${(await changes(mailing))[0]!.id}/back`, {});
  await mailbag.client.send('DELETE', `/api/sources/${sourceId}`);
  await mailbag.client.send('POST', `/api/mailings/${mailing}/changes/${(await changes(mailing))[0]!.id}/back`, {});
  expect((await read(mailing)).plan).toMatchObject({ packet: [template], sourceId: null, maps: { [template]: { 'permit.plot': {} } } });
});

test('a mailing that is put away is out of the way and reminds nobody, and comes back as it was', async () => {
  const { mailing } = await smallMailing(mailbag.client, [['P-1', 'Ada', 'ada@example.org', 'yes']]);
  const archive = (isArchived: boolean) => mailbag.client.send<MailingSummary>('POST', `/api/mailings/${mailing}/archive`, { isArchived });
  expect(await archive(true)).toMatchObject({ id: mailing, isArchived: true });
  expect((await mailbag.client.get<MailingSummary[]>('/api/mailings')).find(({ id }) => id === mailing)!.isArchived).toBe(true);
  expect(await archive(false)).toMatchObject({ isArchived: false });
  expect((await read(mailing)).plan.packet).toHaveLength(1);
});
