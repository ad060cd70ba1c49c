import type { Cell } from '@mailbag/core';
import { ownTables } from '../../../../testing/own-tables.js';
import type { Sql } from '../persistence/sql.js';
import { person } from '../platform/principal.js';
import { correctionStore } from './correction.store.js';
import { folderStore } from './folder.store.js';

let sql: Sql;
ownTables('each', async (own) => {
  ({ sql } = own);
  const { add } = own;
  for (const id of [1, 9])
    await add('source', { id, name: 's', state: 'ready', files: '[]', query: 'null', columns: '[]', notes: '[]', reading: '{}' });
});

const correct = (row: number, column: string, value: string, step = 's1', source = 1) =>
  correctionStore.add(
    sql,
    source,
    [{ recordKey: `key ${row}`, row, column, was: { text: 'was' } as Cell, value: { text: value } as Cell }],
    { who: person(1, 'Marit'), at: '2027-01-01', step },
  );

test('corrections hold until they are settled, and are found by row, column, step and one by one', async () => {
  await correct(2, 'Name', 'Ada');
  await correct(3, 'Name', 'Bea', 's2');
  await correct(2, 'Plot', 'A-1', 's2');
  await correct(2, 'Name', 'elsewhere', 's1', 9);
  expect((await correctionStore.activeOf(sql, 1)).map(({ value }) => value)).toEqual([
    '{"text":"Ada"}',
    '{"text":"Bea"}',
    '{"text":"A-1"}',
  ]);
  expect((await correctionStore.ofRows(sql, 1, [2])).map(({ columnName, who }) => [columnName, who])).toEqual([['Name', 'Marit'], ['Plot', 'Marit']]); // prettier-ignore
  expect((await correctionStore.ofColumn(sql, 1, 'Name')).map(({ row }) => row)).toEqual([2, 3]);
  expect((await correctionStore.active(sql, 1, { step: 's2' })).map(({ row }) => row)).toEqual([3, 2]);
  const [one] = await correctionStore.active(sql, 1, { id: 1 });
  await correctionStore.settle(sql, one!.id, 'fulfilled', 7);
  expect(await correctionStore.activeCount(sql, 1)).toEqual({ count: 2 });
  expect(await sql.query('SELECT state, row, principal FROM correction WHERE id = 1')).toEqual([
    { state: 'fulfilled', row: 7, principal: 'person:1' },
  ]);
});

test('many corrections are written down in their order and taken back together, whatever their values hold', async () => {
  const texts = ['', 'O’Brien; "quoted"', 'Ayla Ünal', 'two\nlines', '007', '𝒜'];
  const many = texts.map((text, at) => ({
    recordKey: `key ${at}`,
    row: at + 2,
    column: 'Name',
    was: { text: 'was', value: 'was' },
    value: { text, value: text },
  }));
  await correctionStore.add(sql, 1, many, { who: person(1, 'Marit'), at: '2027-01-01', step: 's3' });
  const written = await correctionStore.activeOf(sql, 1);
  expect(written.map(({ recordKey, row, value }) => [recordKey, row, (JSON.parse(value) as Cell).text])).toEqual(
    texts.map((text, at) => [`key ${at}`, at + 2, text]),
  );
  await correctionStore.undo(
    sql,
    written.slice(1).map(({ id }) => id),
  );
  expect((await correctionStore.activeOf(sql, 1)).map(({ row }) => row)).toEqual([2]);
  await correctionStore.add(sql, 1, [], { who: person(1, 'Marit'), at: '2027-01-01', step: 's4' });
  expect(await correctionStore.activeCount(sql, 1)).toEqual({ count: 1 });
});

test('corrections of a column that is called otherwise now fit again', async () => {
  await correct(2, 'Nam', 'Ada');
  await correctionStore.settle(sql, 1, 'unfit', 2);
  await correctionStore.renameColumn(sql, 'Name', 1, 'Nam');
  expect((await correctionStore.activeOf(sql, 1)).map(({ columnName }) => columnName)).toEqual(['Name']);
  await correctionStore.dropOfSource(sql, 1);
  expect(await correctionStore.activeCount(sql, 1)).toEqual({ count: 0 });
});

test('a folder counts its claims, is held and let go, and has its own salt', async () => {
  const { claims } = (await folderStore.state(sql))!;
  expect((await folderStore.claim(sql))!.claims).toBe(claims + 1);
  await folderStore.setState(sql, 'folder', 'copied', 'check');
  expect(await folderStore.state(sql)).toMatchObject({ folder: 'folder', held: 'copied', keyCheck: 'check', claims: claims + 1 });
  await folderStore.release(sql);
  expect((await folderStore.state(sql))!.held).toBeNull();
  expect((await folderStore.salt(sql)).length).toBeGreaterThanOrEqual(16);
});
