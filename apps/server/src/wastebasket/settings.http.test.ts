import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import type { ConnectionAnswer, HistoryLine, MailServerAnswer, PrinterAnswer, RegisterAnswer, SavedView, SenderAnswer, SourceSummary, WastebasketLine } from '@mailbag/contract'; // prettier-ignore
import { signedInAs } from '../../../../testing/accounts.js';
import { PostOffice, PrinterStandIn, RunningMailbag } from '../../../../testing/running-mailbag.js';
import { startBatch } from '../../../../demo/src/start-batch.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

/** What was set up is deleted, put back as it was, and deleted for good. */
const mailbag = new RunningMailbag();
let office: PostOffice;
let printer: PrinterStandIn;
const get = <T>(path: string): Promise<T> => mailbag.client.get<T>(path);
const send = <T>(method: 'POST' | 'PUT' | 'PATCH' | 'DELETE', path: string, body?: object): Promise<T> =>
  mailbag.client.send<T>(method, path, body);
const lying = async (): Promise<string[]> => (await get<WastebasketLine[]>('/api/wastebasket')).map(({ kind, name }) => `${kind} ${name}`);
const run = async (mailing: number): Promise<unknown> => {
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  return mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
};
const folder = mkdtempSync(join(tmpdir(), 'mailbag-database-'));

beforeAll(async () => {
  office = await PostOffice.open();
  printer = await PrinterStandIn.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await mailbag.close();
  await office.close();
  await printer.close();
});

test('a sender goes before its server, brings it back with its confirmation and password, and is not put beside another of its address', async () => {
  const [sender] = await get<SenderAnswer[]>('/api/senders');
  const [server] = await get<MailServerAnswer[]>('/api/mail-servers');
  await expect(send('DELETE', `/api/mail-servers/${server!.id}`)).rejects.toThrow('mail-server-in-use');
  await send('DELETE', `/api/senders/${sender!.id}`);
  await send('DELETE', `/api/mail-servers/${server!.id}`);
  expect([await get('/api/senders'), await get('/api/mail-servers')]).toEqual([[], []]);
  expect(await lying()).toEqual([`mail-server ${server!.name}`, 'sender office@larkmere.example']);
  // The server is needed by what lies beside it.
  await expect(send('DELETE', `/api/wastebasket/mail-server/${server!.id}`)).rejects.toThrow('mail-server-in-use');
  await send('POST', `/api/wastebasket/sender/${sender!.id}/back`);
  expect(await lying()).toEqual([]);
  expect(await get('/api/senders')).toEqual([sender]);
  expect(await get('/api/mail-servers')).toEqual([server]);

  await send('DELETE', `/api/senders/${sender!.id}`);
  const { id: _, serverName: __, hasDkimKey: ___, confirmed: ____, code: _____, ...again } = sender!;
  const [added] = await send<SenderAnswer[]>('POST', '/api/senders', again);
  await expect(send('POST', `/api/wastebasket/sender/${sender!.id}/back`)).rejects.toThrow('sender-exists');
  await send('DELETE', `/api/senders/${added!.id}`);
  await send('POST', `/api/wastebasket/sender/${sender!.id}/back`);
  await send('DELETE', `/api/wastebasket/sender/${added!.id}`);
  expect(await get('/api/senders')).toEqual([sender]);
});

test('the history says what went, what came back, and what was deleted for good, by name', async () => {
  const lines = await get<HistoryLine[]>('/api/history');
  expect(
    lines
      .map(({ action, subject }) => [action, subject])
      .filter(([action]) => /wastebasket|for good/.test(action!))
      .slice(-3)
      .reverse(),
  ).toEqual([
    ['put a sender into the wastebasket', 'office@larkmere.example'],
    ['put a mail server into the wastebasket', expect.any(String)],
    ['put something back from the wastebasket', 'office@larkmere.example'],
  ]);
  expect(lines).toContainEqual(expect.objectContaining({ action: 'deleted something for good', subject: 'office@larkmere.example' }));
});

test('a mailing sends through a sender that was put back', async () => {
  const { mailing } = await smallMailing(mailbag.client, [['P-1', 'Ada Quist', 'ada@larkmere.example', 'yes']], { mailed: true });
  await run(mailing);
  const [letter] = await office.letters();
  expect(letter).toMatchObject({ to: 'ada@larkmere.example', returnPath: 'office@larkmere.example' });
});

test('a printer is renamed, takes nothing while it lies in the wastebasket, and comes back', async () => {
  const [made] = await send<PrinterAnswer[]>('POST', '/api/printers', { name: 'Cellar', uri: printer.uri });
  const [renamed] = await send<PrinterAnswer[]>('PUT', `/api/printers/${made!.id}`, { name: 'Attic', uri: printer.uri });
  expect(renamed).toEqual({ ...made, name: 'Attic' });
  await send('DELETE', `/api/printers/${made!.id}`);
  expect(await get('/api/printers')).toEqual([]);
  await expect(send('PUT', `/api/printers/${made!.id}`, { name: 'Barn', uri: printer.uri })).rejects.toThrow('not-found');
  await expect(send('DELETE', `/api/printers/${made!.id}`)).rejects.toThrow('not-found');
  await send('POST', `/api/wastebasket/printer/${made!.id}/back`);
  expect(await get('/api/printers')).toEqual([renamed]);
});

test('a printer that is switched off can be renamed, and is not led to another address that does not answer', async () => {
  const away = await PrinterStandIn.open();
  const printers = await send<PrinterAnswer[]>('POST', '/api/printers', { name: 'Away', uri: away.uri });
  const made = printers.find(({ name }) => name === 'Away');
  await away.close();
  await send('PUT', `/api/printers/${made!.id}`, { name: 'Asleep', uri: made!.uri });
  expect((await get<PrinterAnswer[]>('/api/printers')).map(({ name }) => name)).toEqual(['Asleep', 'Attic']);
  const elsewhere = `${made!.uri}/other`;
  await expect(send('PUT', `/api/printers/${made!.id}`, { name: 'Asleep', uri: elsewhere })).rejects.toThrow('printer-unreachable');
  await send('DELETE', `/api/printers/${made!.id}`);
  await send('DELETE', `/api/wastebasket/printer/${made!.id}`);
});

test('a register is told nothing while it lies there, and what it has missed when it is put back', async () => {
  const file = { kind: 'folder', host: '', port: 0, databaseName: '', user: '', password: '', tls: false, mailings: [], paused: false };
  const reported = (): number => readdirSync(join(mailbag.data, 'registers/town')).length;
  const [register] = await send<RegisterAnswer[]>('POST', '/api/registers', { ...file, name: 'Town', table: 'town' });
  const upToDate = (): Promise<unknown> => mailbag.client.until<RegisterAnswer[]>('/api/registers', ([one]) => one?.waiting === 0);
  await upToDate();
  const before = reported();
  await send('DELETE', `/api/registers/${register!.id}`);
  const { mailing } = await smallMailing(mailbag.client, [['P-2', 'Bo Quist', '', 'yes']]);
  await run(mailing);
  expect([await get('/api/registers'), reported()]).toEqual([[], before]);
  await send('POST', `/api/wastebasket/register/${register!.id}/back`);
  await upToDate();
  expect(reported()).toBe(before + 1);
});

test('a database goes when no source reads it, and comes back with its file and with a source that reads it', async () => {
  const path = join(folder, 'waiting.sqlite');
  const database = new Database(path);
  database.exec("CREATE TABLE applicant (number INTEGER, name TEXT); INSERT INTO applicant VALUES (1, 'Ada')");
  database.close();
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/connections/files', 'waiting.sqlite', readFileSync(path));
  const connection = await send<ConnectionAnswer>('POST', '/api/connections', {
    ...{ name: 'Waiting list', kind: 'sqlite', host: '', port: 0, databaseName: 'waiting.sqlite', user: '', password: '', tls: false },
    fileId,
  });
  const source = await send<SourceSummary>('POST', '/api/sources', {
    name: 'Applicants',
    query: { connectionId: connection.id, sql: 'SELECT * FROM applicant', parameters: {} },
    reading: {},
  });
  await mailbag.client.until<SourceSummary>(`/api/sources/${source.id}`, ({ state }) => state === 'ready');
  await expect(send('DELETE', `/api/connections/${connection.id}`)).rejects.toThrow('connection-in-use');
  await send('DELETE', `/api/sources/${source.id}`);
  await send('DELETE', `/api/connections/${connection.id}`);
  expect(await get('/api/connections')).toEqual([]);
  await expect(send('DELETE', `/api/wastebasket/connection/${connection.id}`)).rejects.toThrow('connection-in-use');
  await send('POST', `/api/wastebasket/source/${source.id}/back`);
  expect(await lying()).toEqual([]);
  expect(await get(`/api/connections/${connection.id}/tables`)).toMatchObject([{ name: 'applicant' }]);
  expect(await get('/api/connections')).toEqual([{ ...connection, usedBy: ['Applicants'] }]);
});

test('a newer file takes the place of that of a database, and sources read it under the same connection', async () => {
  const file = async (table: string): Promise<string> => {
    const path = join(folder, `${table}.sqlite`);
    const database = new Database(path);
    database.exec(`CREATE TABLE ${table} (number INTEGER)`);
    database.close();
    return (await mailbag.client.upload<{ fileId: string }>('/api/connections/files', `${table}.sqlite`, readFileSync(path))).fileId;
  };
  const there = { name: 'Yearly', kind: 'sqlite', host: '', port: 0, user: '', tls: false };
  const before = { ...there, databaseName: 'last_year.sqlite', fileId: await file('last_year') };
  const { id } = await send<ConnectionAnswer>('POST', '/api/connections', before);
  await send('PUT', `/api/connections/${id}`, { ...there, databaseName: 'this_year.sqlite', fileId: await file('this_year') });
  expect(await get(`/api/connections/${id}/tables`)).toMatchObject([{ name: 'this_year' }]);
  // Another name alone leaves the file as it is.
  await send('PUT', `/api/connections/${id}`, { ...there, name: 'By year', databaseName: 'this_year.sqlite' });
  expect(await get(`/api/connections/${id}/tables`)).toMatchObject([{ name: 'this_year' }]);
});

test('a saved view lies there for its owner alone, who may be a viewer', async () => {
  const viewer = await signedInAs(mailbag, { role: 'viewer' });
  const operator = await signedInAs(mailbag, { role: 'operator' });
  const [view] = await viewer.send<SavedView[]>('POST', '/api/copies/views', { name: 'Late', filter: 'state=bounced' });
  await expect(operator.send('DELETE', `/api/copies/views/${view!.id}`)).rejects.toThrow('not-found');
  await expect(operator.send('PUT', `/api/copies/views/${view!.id}`, { name: 'Mine' })).rejects.toThrow('not-found');
  await viewer.send('PUT', `/api/copies/views/${view!.id}`, { name: 'Bounced' });
  await viewer.send('DELETE', `/api/copies/views/${view!.id}`);
  expect(await viewer.get('/api/copies/views')).toEqual([]);
  expect(await lying()).toEqual([]);
  await expect(operator.send('POST', `/api/wastebasket/view/${view!.id}/back`)).rejects.toThrow('not-found');
  await viewer.send('POST', `/api/wastebasket/view/${view!.id}/back`);
  expect(await viewer.get('/api/copies/views')).toEqual([{ ...view, name: 'Bounced' }]);
});

test('what an administrator has set up is put back, and deleted for good, by an administrator', async () => {
  const operator = await signedInAs(mailbag, { role: 'operator' });
  const [one] = await get<PrinterAnswer[]>('/api/printers');
  await expect(operator.send('DELETE', `/api/printers/${one!.id}`)).rejects.toThrow('account-not-allowed');
  await send('DELETE', `/api/printers/${one!.id}`);
  await expect(operator.send('POST', `/api/wastebasket/printer/${one!.id}/back`)).rejects.toThrow('account-not-allowed');
  await expect(operator.send('DELETE', `/api/wastebasket/printer/${one!.id}`)).rejects.toThrow('account-not-allowed');
  expect(await lying()).toEqual(['printer Attic']);
  await send('DELETE', `/api/wastebasket/printer/${one!.id}`);
  expect(await lying()).toEqual([]);
});
