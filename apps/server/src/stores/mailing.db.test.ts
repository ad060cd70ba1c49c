import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { mailingStore } from './mailing.store.js';
import { sourceStore } from './source.store.js';
import { templateStore } from './template.store.js';

let sql: Sql;
let add: RowAdder;
ownTables('each', async (own) => {
  ({ sql, add } = own);
  for (const name of ['tenancies', 'members'])
    await add('source', {
      name,
      state: 'ready',
      files: '[{"fileId":"f1"},{"fileId":"f2"}]',
      fileId: 'f1',
      query: 'null',
      columns: '[]',
      notes: '[]',
      reading: '{}',
      count: 3,
    });
  for (const name of ['Permit', 'Invoice']) {
    const templateId = await add('template', { name });
    await add('template_revision', {
      templateId,
      number: 1,
      hash: name,
      fileName: name,
      pages: '[]',
      fields: JSON.stringify([{ name: `${name}.plot` }, { name: 'date' }]),
      notes: '[]',
    });
  }
  for (const name of ['Renewals', 'Permits']) await add('mailing', { name, plan: '{"leftOut":[2,3]}', version: 1 });
});

const save = (id: number, version: number, part: object = {}) =>
  mailingStore.save(sql, id, version, {
    name: 'Permits',
    plan: { leftOut: [2] },
    sourceId: 1,
    packet: [{ templateId: 1, revisionId: 1 }],
    updatedAt: '2027-01-02',
    ...part,
  });

test('a mailing is saved over the version that was seen, and over no other', async () => {
  expect(await save(2, 1)).toBe(true);
  expect(await save(2, 1, { name: 'Too late' })).toBe(false);
  expect(await mailingStore.version(sql, 2)).toEqual({ version: 2 });
  expect((await mailingStore.list(sql)).find(({ id }) => id === 2)).toMatchObject({
    name: 'Permits',
    templates: 1,
    sourceName: 'tenancies',
    records: 3,
    batches: 0,
  });
});

test('its packet keeps the order and the revision that each template was mapped for', async () => {
  await save(2, 1, { packet: [{ templateId: 2, revisionId: 2 }, { templateId: 1, revisionId: 1 }] }); // prettier-ignore
  expect(await mailingStore.packet(sql, 2)).toEqual([{ templateId: 2, revisionId: 2 }, { templateId: 1, revisionId: 1 }]); // prettier-ignore
  await save(2, 2, { packet: [] });
  expect(await mailingStore.packet(sql, 2)).toEqual([]);
});

test('who uses a source or a template is known by name, and a template that is used stays', async () => {
  await save(2, 1);
  await save(1, 1, { name: 'Renewals' });
  expect(await mailingStore.namesBySource(sql, 1)).toEqual([{ name: 'Permits' }, { name: 'Renewals' }]);
  expect(await mailingStore.namesBySource(sql, 2)).toEqual([]);
  expect(await mailingStore.namesByTemplate(sql, 1)).toEqual([{ name: 'Permits' }, { name: 'Renewals' }]);
  await expect(sql.query('DELETE FROM template_revision WHERE id = 1')).rejects.toThrow(/FOREIGN KEY/);
});

test('a source that goes is taken out of its mailings, with what was said of single records', async () => {
  await save(2, 1);
  await mailingStore.disconnect(sql, [2]);
  const [row] = await sql.query<{ sourceId: number | null; plan: string; version: number }>(
    'SELECT sourceId, plan, version FROM mailing WHERE id = 2',
  );
  expect([row!.sourceId, JSON.parse(row!.plan), row!.version]).toEqual([null, { leftOut: [] }, 3]);
});

test('plans that are changed beside the screen are new versions', async () => {
  await save(2, 1);
  expect(await mailingStore.plansOfSource(sql, 1)).toEqual([{ id: 2, plan: '{"leftOut":[2]}' }]);
  await mailingStore.setPlan(sql, 2, { leftOut: [9], message: { reminder: { bySchedule: true } } });
  expect(await mailingStore.version(sql, 2)).toEqual({ version: 3 });
  expect(await mailingStore.remindingBySchedule(sql)).toEqual([{ id: 2 }]);
  await mailingStore.addCheckProgress(sql, 2, 500);
  await mailingStore.addCheckProgress(sql, 2, 200);
  const progress = () => sql.query<{ checkProgress: number }>('SELECT checkProgress FROM mailing WHERE id = 2');
  expect(await progress()).toEqual([{ checkProgress: 700 }]);
  await mailingStore.clearCheckProgress(sql, 2);
  expect(await progress()).toEqual([{ checkProgress: 0 }]);
});

test('fields of all templates are named once', async () => {
  expect((await templateStore.fieldNames(sql, 10)).map(({ name }) => name).sort()).toEqual(['Invoice.plot', 'Permit.plot', 'date']);
  expect(await templateStore.fieldNames(sql, 2)).toHaveLength(2);
});

test('files of sources are known, whether they are the first or one of several, and those of foreign databases', async () => {
  await add('connection', { name: 'c', kind: 'sqlite', fileId: 'f9' });
  expect((await sourceStore.fileIds(sql)).map(({ fileId }) => fileId).sort()).toEqual(['f1', 'f2', 'f9']);
  await sql.query('UPDATE source SET query = \'{"connectionId":1}\' WHERE id = 2');
  expect(await sourceStore.namesByConnection(sql, 1)).toEqual([{ name: 'members' }]);
});

test('sources that nobody needed since a day are found, but not those of a batch that still runs', async () => {
  await sql.query("UPDATE source SET readAt = '2026-01-01'");
  await save(2, 1);
  await add('batch', { number: 1, mailingId: 2, mailingName: 'Permits', state: 'making', frozen: '{}', finishedAt: null });
  expect(await sourceStore.unusedSince(sql, '2026-06-01', '2026-06-01')).toEqual([{ id: 2 }]);
  await sql.query("UPDATE batch SET finishedAt = '2026-02-01'");
  expect(await sourceStore.unusedSince(sql, '2026-06-01', '2026-06-01')).toEqual([{ id: 1 }, { id: 2 }]);
});
