import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { batchStore } from './batch.store.js';
import { recordStore } from './record.store.js';

let sql: Sql;
let add: RowAdder;
ownTables('each', async (own) => {
  ({ sql, add } = own);
  await add('mailing', { name: 'Permits', plan: '{}' });
});

const begun = async (startKey = 'key', keyColumn = 'Plot'): Promise<number> =>
  batchStore.add(sql, {
    number: (await batchStore.nextNumber(sql))!.number, mailingId: 1, mailingName: 'Permits', frozen: { plan: { keyColumn } }, records: 3, mailed: true,
    startedAt: '2027-01-01', startKey, usedColumns: ['Plot'], today: '2027-01-01',
  }); // prettier-ignore
const state = async (id: number) => (await batchStore.state(sql, id))!.state;

test('batches are numbered one after the other, and a request begins one only once', async () => {
  const [one, two] = [await begun('a'), await begun('b')];
  expect([(await batchStore.name(sql, one))!.number, (await batchStore.name(sql, two))!.number]).toEqual([1, 2]);
  expect(await batchStore.begunBy(sql, 'b')).toEqual({ id: two, mailingId: 1 });
  expect(await batchStore.begunBy(sql, 'c')).toBeUndefined();
  await expect(begun('b')).rejects.toThrow(/UNIQUE/);
  expect((await batchStore.latest(sql, 'all')).map(({ id }) => id)).toEqual([two, one]);
  expect(await batchStore.lastOf(sql, 1)).toBe(two);
  expect(await batchStore.lastOf(sql, 9)).toBeNull();
});

test('records are frozen with the batch in the order of the list, with their digests', async () => {
  const source = await add('source', { name: 's', state: 'ready', files: '[]', query: 'null', columns: '[]', notes: '[]', reading: '{}' });
  await recordStore.append(sql, source, ['Ada', 'Bea', 'Cleo'].map((text) => ({ cells: [{ text }] }))); // prettier-ignore
  const id = await begun();
  await batchStore.addRecords(sql, id, [{ ordinal: 2, key: 'k2', values: 'v2' }, { ordinal: 0, key: 'k0', values: 'v0' }], await recordStore.readingOf(sql, source)); // prettier-ignore
  const frozen = await batchStore.recordsFrom(sql, id, 0, 10);
  expect(frozen.map(({ ordinal, row, cells }) => [ordinal, row, cells])).toEqual([[0, 4, '[{"text":"Cleo"}]'], [1, 2, '[{"text":"Ada"}]']]); // prettier-ignore
  expect(await batchStore.recordsBetween(sql, id, 1, 2)).toHaveLength(1);
  expect(await batchStore.record(sql, id, 0)).toEqual({ row: 4, cells: '[{"text":"Cleo"}]' });
  // What becomes of the source is nothing to them.
  await recordStore.dropReadings(sql, source);
  expect(await batchStore.hasValues(sql, id, 1)).toBe(true);
  await batchStore.clearCells(sql, id);
  expect([await batchStore.hasValues(sql, id, 1), (await batchStore.recordsWithCells(sql, id))!.count]).toEqual([false, 0]);
});

test('a mailing is asked whether a batch of it begins', async () => {
  expect(await batchStore.isPlanning(sql, 1)).toBe(false);
  const id = await begun();
  expect([await batchStore.isPlanning(sql, 1), await batchStore.isPlanning(sql, 2)]).toEqual([true, false]);
  await batchStore.move(sql, 'making', null, id, 'planning');
  expect(await batchStore.isPlanning(sql, 1)).toBe(false);
});

test('a batch that is paused goes on where it was, and one that failed says why until it goes on', async () => {
  const id = await begun();
  await batchStore.move(sql, 'making', null, id, 'planning');
  await batchStore.pauseFor(sql, { code: 'copy-differs' }, id);
  expect(await batchStore.summary(sql, id)).toMatchObject({ state: 'paused', error: '{"code":"copy-differs"}' });
  await batchStore.resume(sql, id);
  expect(await batchStore.summary(sql, id)).toMatchObject({ state: 'making', error: null });
  expect(await batchStore.move(sql, 'done', '2027', id, 'planning')).toBe(0);
  await batchStore.cancel(sql, '2027-02-01', id);
  expect(await state(id)).toBe('cancelled');
  expect((await batchStore.finishedBefore(sql, '2027-03-01')).map((one) => one.id)).toEqual([id]);
  expect(await batchStore.running(sql)).toEqual([]);
});

test('its planning is told as it gets on; what is frozen is never written again', async () => {
  const id = await begun();
  await batchStore.setPlanned(sql, id, 2, 'abc', 4);
  await batchStore.setPlanned(sql, id, 3, 'abcd', 2);
  expect(await batchStore.planning(sql, id)).toMatchObject({ plannedThrough: 3, characters: 'abcd' });
  expect(await batchStore.summary(sql, id)).toMatchObject({ copies: 6 });
  await batchStore.setReminder(sql, { subject: 'Again' }, id);
  expect(await batchStore.frozen(sql, id)).toMatchObject({ frozen: '{"plan":{"keyColumn":"Plot"}}', reminder: '{"subject":"Again"}' });
  await batchStore.clearCharacters(sql, id);
  expect((await batchStore.frozenWithCharacters(sql, id))!.characters).toBe('');
});

test('records with copies that are there or coming are told from those whose copies were withdrawn', async () => {
  const id = await begun();
  for (const [ordinal, copy] of [[0, 'sent'], [1, 'withdrawn'], [2, null]] as const) {
    await add('batch_record', { batchId: id, ordinal, row: ordinal + 2, cells: '[]', keyDigest: `k${ordinal}`, valuesDigest: `v${ordinal}` });
    if (copy) await add('copy', { code: `c${ordinal}`, batchId: id, mailingId: 1, recordOrdinal: ordinal, state: copy, pathKey: `p${ordinal}` });
  } // prettier-ignore
  const keys = async (part: object) =>
    (await batchStore.digestsWithCopies(sql, { id, state: 'making', plannedThrough: 3, ...part })).map(({ keyDigest }) => keyDigest);
  expect(await keys({})).toEqual(['k0']);
  // What is not planned yet is still coming, unless the batch was cancelled.
  expect(await keys({ plannedThrough: 2 })).toEqual(['k0', 'k2']);
  expect(await keys({ plannedThrough: 2, state: 'cancelled' })).toEqual(['k0']);
  await batchStore.rememberWhoHad(sql, id);
  await batchStore.dropRecords(sql, id);
  expect(await batchStore.hadCopies(sql, 1)).toEqual([{ keyDigest: 'k0' }]);
  await batchStore.forgetHadCopies(sql, 1);
  expect(await batchStore.hadCopies(sql, 1)).toEqual([]);
});

test('what is frozen is told of those batches alone whose key was another column', async () => {
  await begun('a', 'Plot');
  await begun('b', 'Number');
  const found = await batchStore.withKeyColumns(sql, 1, 'Plot');
  expect(found.map(({ frozen }) => frozen)).toEqual(['', '{"plan":{"keyColumn":"Number"}}']);
});
