import type {
  ChecksAnswer,
  HistoryLine,
  IntakeDetail,
  MailingDetail,
  MailingSummary,
  SourceSummary,
  TemplateSummary,
  WastebasketLine,
} from '@mailbag/contract';
import { tenancyAgreement } from '../../../../demo/src/forms/tenancy-agreement.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';
import { until } from '../../../../testing/until.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';

const mailbag = new RunningMailbag();
let template: number;
let source: number;
let mailing: number;
const { get, send } = {
  get: <T>(path: string): Promise<T> => mailbag.client.get<T>(path),
  send: <T>(method: 'POST' | 'PUT' | 'PATCH' | 'DELETE', path: string, body?: object): Promise<T> =>
    mailbag.client.send<T>(method, path, body),
};
const lying = async (): Promise<string[]> => (await get<WastebasketLine[]>('/api/wastebasket')).map(({ kind, name }) => `${kind} ${name}`);
/** Makes what lies there look as if it had been deleted so many days ago. */
const daysAgo = (table: string, id: number, days: number): void =>
  mailbag.change(`UPDATE ${table} SET deletedAt = ? WHERE id = ?`, [new Date(Date.now() - days * 86_400_000).toISOString(), id]);

beforeAll(async () => {
  await (await mailbag.start()).setUp();
  ({
    template: { id: template },
  } = await mailbag.client.upload<{ template: { id: number } }>('/api/templates', 'tenancy.pdf', tenancyAgreement()));
  const { fileId } = await mailbag.client.upload<{ fileId: string }>(
    '/api/sources/files',
    'people.csv',
    Buffer.from('Plot,Name\nB-17,Ayumi\n'),
  );
  ({ id: source } = await send<SourceSummary>('POST', '/api/sources', { name: 'People', fileIds: [fileId], reading: {} }));
  await mailbag.client.until<SourceSummary>(`/api/sources/${source}`, ({ state }) => state === 'ready');
  const made = await send<MailingDetail>('POST', '/api/mailings', { name: 'Renewals' });
  mailing = made.id;
  await send('PUT', `/api/mailings/${mailing}`, { version: made.version, plan: { ...made.plan, packet: [template], sourceId: source } });
});
afterAll(() => mailbag.close());

test('what a mailing needs is not deleted before it', async () => {
  await expect(send('DELETE', `/api/templates/${template}`)).rejects.toThrow('template-in-use');
  await expect(send('DELETE', `/api/sources/${source}`)).rejects.toThrow('source-in-use');
  expect(await lying()).toEqual([]);
});

test('what was deleted is in no list and cannot be changed, and says where it is', async () => {
  await send('DELETE', `/api/mailings/${mailing}`);
  await send('DELETE', `/api/templates/${template}`);
  await send('DELETE', `/api/sources/${source}`);
  expect(await lying()).toEqual(['source People', 'template tenancy', 'mailing Renewals']);
  for (const list of ['mailings', 'templates', 'sources']) expect(await get<unknown[]>(`/api/${list}`)).toEqual([]);
  for (const path of [`mailings/${mailing}`, `templates/${template}`, `sources/${source}`])
    await expect(get(`/api/${path}`)).rejects.toThrow('in-wastebasket');
  await expect(send('PATCH', `/api/sources/${source}`, { name: 'Others' })).rejects.toThrow('in-wastebasket');
  await expect(send('DELETE', `/api/mailings/${mailing}`)).rejects.toThrow('in-wastebasket');
  const [line] = await get<WastebasketLine[]>('/api/wastebasket');
  expect(line!.deletedBy).toBe('Test Person');
  expect(Date.parse(line!.goesAt) - Date.parse(line!.deletedAt)).toBe(30 * 86_400_000);
});

test('a mailing comes back with the template and the records that it needs, as it was', async () => {
  await send('POST', `/api/wastebasket/mailing/${mailing}/back`);
  expect(await lying()).toEqual([]);
  const { plan } = await get<MailingDetail>(`/api/mailings/${mailing}`);
  expect(plan).toMatchObject({ name: 'Renewals', packet: [template], sourceId: source });
  expect((await get<SourceSummary>(`/api/sources/${source}`)).count).toBe(1);
});

test('a template that is needed by what lies in the wastebasket is not deleted for good', async () => {
  await send('DELETE', `/api/mailings/${mailing}`);
  await send('DELETE', `/api/templates/${template}`);
  await expect(send('DELETE', `/api/wastebasket/template/${template}`)).rejects.toThrow('template-in-use');
  expect(await lying()).toEqual(['template tenancy', 'mailing Renewals']);
});

test('the same file comes in again: its template is taken out of the wastebasket', async () => {
  const answer = await mailbag.client.upload<{ known: boolean; template: TemplateSummary }>(
    '/api/templates',
    'tenancy.pdf',
    tenancyAgreement(),
  );
  expect(answer).toMatchObject({ known: true, template: { id: template } });
  expect(await lying()).toEqual(['mailing Renewals']);
  await send('DELETE', `/api/templates/${template}`);
});

test('after 30 days it is deleted for good, in an order in which nothing is missing, and the history says so', async () => {
  await send('DELETE', `/api/sources/${source}`);
  daysAgo('template', template, 31);
  daysAgo('mailing', mailing, 31);
  daysAgo('source', source, 29);
  await mailbag.stop();
  mailbag.change("UPDATE job SET dueAt = 0 WHERE kind = 'wastebasket'");
  await mailbag.startAgain();
  await until(async () => (await lying()).length === 1, 'the wastebasket was emptied');
  expect(await lying()).toEqual(['source People']);
  await expect(get(`/api/mailings/${mailing}`)).rejects.toThrow('not-found');
  await expect(get(`/api/templates/${template}`)).rejects.toThrow('not-found');
  const [line] = (await get<HistoryLine[]>('/api/history')).filter(({ action }) => action === 'emptied the wastebasket');
  expect(line!.subject).toBe('Renewals, tenancy');
});

test('what lies there can be deleted at once, and is then nowhere', async () => {
  await send('DELETE', `/api/wastebasket/source/${source}`);
  await expect(send('POST', `/api/wastebasket/source/${source}/back`)).rejects.toThrow('not-found');
  await expect(get(`/api/sources/${source}`)).rejects.toThrow('not-found');
});

test('an intake goes with what is made of it: its page is not there any more, and is again when it is put back', async () => {
  const { intake } = await smallIntake(mailbag.client);
  const page = async (): Promise<number> => (await stranger(mailbag.address, 'GET', `/api/public/intakes/${intake.word}`)).status;
  expect(await page()).toBe(200);
  const mailings = (await get<MailingSummary[]>('/api/mailings')).length;
  await send('DELETE', `/api/intakes/${intake.id}`);
  expect(await page()).toBe(404);
  expect((await get<MailingSummary[]>('/api/mailings')).length).toBe(mailings - 1);
  expect((await lying()).filter((line) => line.startsWith('intake'))).toHaveLength(1);
  await expect(get(`/api/intakes/${intake.id}`)).rejects.toThrow('in-wastebasket');
  await send('POST', `/api/wastebasket/intake/${intake.id}/back`);
  expect(await page()).toBe(200);
  expect((await get<IntakeDetail>(`/api/intakes/${intake.id}`)).id).toBe(intake.id);
});

test('an intake that people have answered takes the answers along and brings them back; deleted for good they are gone, and their copies stay', async () => {
  const { intake, edition, idOf } = await smallIntake(mailbag.client, 'Answered');
  const answers = { [idOf('Plot number')]: 'B-17', [idOf('Name of the tenant')]: 'Ada Quist', [idOf('E-mail address')]: 'ada@example.org' };
  const body = { edition, key: 'who-answers-what-is-deleted', language: 'en', answers };
  await stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/submissions`, body);
  const copies = async (): Promise<number> => (await get<{ total: number }>('/api/copies/counts?text=Quist')).total;
  await until(async () => (await copies()) === 1, 'a copy was made of the answer');
  await send('DELETE', `/api/intakes/${intake.id}`);
  await send('POST', `/api/wastebasket/intake/${intake.id}/back`);
  expect((await get<{ total: number }>(`/api/intakes/${intake.id}/submissions?from=0&count=10`)).total).toBe(1);
  await send('DELETE', `/api/intakes/${intake.id}`);
  await send('DELETE', `/api/wastebasket/intake/${intake.id}`);
  await expect(get(`/api/intakes/${intake.id}`)).rejects.toThrow('not-found');
  expect(await copies()).toBe(1);
  const database = mailbag.beside();
  expect(database.prepare('SELECT COUNT(*) AS n FROM submission WHERE intakeId = ?').get([intake.id])).toMatchObject({ n: 0 });
  database.close();
});

test('a source goes on being corrected and renamed while one of its mailings lies in the wastebasket, which has it all when it comes back', async () => {
  const { mailing: gone } = await smallMailing(mailbag.client, [['P-1', 'Ada', 'ada@example.org', 'yes']]);
  const before = await get<MailingDetail>(`/api/mailings/${gone}`);
  const [form] = before.plan.packet;
  const own = before.plan.sourceId!;
  const rules = (detail: MailingDetail): string => JSON.stringify(detail.plan.maps[form!]);
  expect(rules(before)).toContain('"Name"');
  await send('DELETE', `/api/mailings/${gone}`);
  await send('POST', `/api/sources/${own}/corrections`, { row: 2, column: 'Name', value: 'Ada Lark' });
  await send('POST', `/api/sources/${own}/links`, { from: 'Name', to: 'Plot' });
  await send('POST', `/api/wastebasket/mailing/${gone}/back`);
  expect(rules(await get<MailingDetail>(`/api/mailings/${gone}`))).not.toContain('"Name"');
  await mailbag.client.until<ChecksAnswer>(`/api/mailings/${gone}/checks`, ({ current }) => current);
});
