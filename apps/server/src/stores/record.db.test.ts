import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { recordStore } from './record.store.js';
import { sourceStore } from './source.store.js';

let sql: Sql;
let add: RowAdder;
ownTables('each', (own) => void ({ sql, add } = own));

const cell = (text: string) => ({ text, value: text });
const source = (name: string): Promise<number> =>
  add('source', { name, state: 'reading', files: '[]', query: 'null', columns: '[]', notes: '[]', reading: '{}' });
const texts = async (id: number): Promise<(string | null)[]> => (await recordStore.textsOf(sql, id, 0)).map(({ text }) => text);

test('records are added after those that are there, whose places and rows stay', async () => {
  const id = await source('answers');
  // The first ones make the reading.
  expect(await recordStore.append(sql, id, [{ cells: [cell('Ada')] }, { cells: [cell('Bea')] }])).toEqual({ from: 0, to: 2 });
  expect(await recordStore.append(sql, id, [{ cells: [cell('Cleo')] }])).toEqual({ from: 2, to: 3 });
  expect(await recordStore.append(sql, id, [])).toEqual({ from: 3, to: 3 });
  expect(await texts(id)).toEqual(['Ada', 'Bea', 'Cleo']);
  expect((await recordStore.page(sql, id, 0, 10)).map(({ ordinal, row }) => [ordinal, row])).toEqual([[0, 2], [1, 3], [2, 4]]); // prettier-ignore
  expect(await sql.query('SELECT state, count FROM source WHERE id = ?', [id])).toEqual([{ state: 'ready', count: 3 }]);
});

test('cells of several records are changed together, and those of no other record', async () => {
  const [id, other] = [await source('one'), await source('other')];
  for (const one of [id, other]) await recordStore.append(sql, one, ['Ada', 'Bea', 'Cleo'].map((name) => ({ cells: [cell(name)] }))); // prettier-ignore
  await recordStore.setCells(sql, id, [
    { ordinal: 2, row: 4, cells: [cell('O’Brien "x"')] },
    { ordinal: 0, row: 2, cells: [cell('Łucja')] },
  ]);
  await recordStore.setCells(sql, id, []);
  expect([await texts(id), await texts(other)]).toEqual([
    ['Łucja', 'Bea', 'O’Brien "x"'],
    ['Ada', 'Bea', 'Cleo'],
  ]);
});

test('records are added to a source that was read, and never to another one', async () => {
  const [one, other] = [await source('one'), await source('other')];
  const reading = await recordStore.startReading(sql, one, null);
  const { text, values } = recordStore.addRecord(reading, 0, 7, [cell('read')]);
  await sql.query(text, [...values]);
  await sourceStore.take(sql, one, { readingId: reading, count: 1, columns: [], notes: [], reading: {}, keyColumn: null, changes: null, readAt: '2027-01-02' }); // prettier-ignore
  await recordStore.append(sql, one, [{ cells: [cell('added')] }]);
  await recordStore.append(sql, other, [{ cells: [cell('elsewhere')] }]);
  expect([await texts(one), await texts(other)]).toEqual([['read', 'added'], ['elsewhere']]);
  expect((await recordStore.recordOfRow(sql, one, 8))?.ordinal).toBe(1);
});

test('a reading that is dropped takes its records block by block, and says whether there are more', async () => {
  const id = await source('many');
  await recordStore.append(
    sql,
    id,
    Array.from({ length: 5 }, (_, index) => ({ cells: [cell(String(index))] })),
  );
  const reading = (await recordStore.readingOf(sql, id))!;
  expect(await recordStore.dropRecords(sql, reading, 2)).toBe(true);
  expect(await texts(id)).toEqual(['3', '4']);
  expect(await recordStore.dropRecords(sql, reading, 2)).toBe(false);
  expect(await recordStore.nextWithRecords(sql, 0)).toBeNull();
});
