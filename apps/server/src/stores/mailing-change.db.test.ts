import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import { person } from '../platform/principal.js';
import type { Sql } from '../persistence/sql.js';
import { mailingChangeStore } from './mailing-change.store.js';

let sql: Sql;
let add: RowAdder;
ownTables('each', async (own) => {
  ({ sql, add } = own);
  for (const name of ['Renewals', 'Permits']) await add('mailing', { name, plan: '{}', version: 1 });
});

const [marit, jonas] = [person(1, 'Marit'), person(2, 'Jonas')];
const noon = Date.parse('2027-01-15T12:00:00Z');
const note = (who: typeof marit, minutes: number, parts: string[], name = `before ${minutes}`, mailing = 1): Promise<void> =>
  mailingChangeStore.note(sql, mailing, { plan: { name }, sourceId: null, packet: [] }, parts, who, new Date(noon + minutes * 60_000));
const lines = async (): Promise<[string, string[]][]> => (await mailingChangeStore.list(sql, 1)).map(({ who, parts }) => [who, parts]);

test('what one person changes without a pause is one change, with what was there before all of it', async () => {
  await note(marit, 0, ['map']);
  await note(marit, 4, ['map', 'checks']);
  await note(marit, 8, ['output']);
  expect(await lines()).toEqual([['Marit', ['map', 'checks', 'output']]]);
  const [only] = await mailingChangeStore.list(sql, 1);
  expect(only).toMatchObject({ at: '2027-01-15T12:00:00.000Z', until: '2027-01-15T12:08:00.000Z' });
  expect(await mailingChangeStore.before(sql, 1, only!.id)).toMatchObject({ plan: { name: 'before 0' } });
});

test.each<[string, () => Promise<void>]>([
  ['after a pause', () => note(marit, 6, ['name'])],
  ['by another one', () => note(jonas, 1, ['name'])],
  ['by one of the same account under another name', () => note(person(1, 'Marit Olsen'), 1, ['name'])],
])('%s it is a change of its own', async (_, second) => {
  await note(marit, 0, ['map']);
  await second();
  expect((await lines()).map(([, parts]) => parts)).toEqual([['name'], ['map']]);
});

test('who goes on for long has a way back to somewhere in between', async () => {
  for (let minutes = 0; minutes <= 40; minutes += 4) await note(marit, minutes, ['map']);
  expect(await lines()).toHaveLength(3);
});

test('of each mailing the last hundred are kept, and nobody is led to those of another', async () => {
  await note(marit, 0, ['map'], 'other', 2);
  for (let count = 0; count < 103; count++) await note(count % 2 === 0 ? marit : jonas, count, ['map']);
  const stored = await mailingChangeStore.list(sql, 1);
  expect(stored).toHaveLength(100);
  expect(await mailingChangeStore.list(sql, 2)).toHaveLength(1);
  expect(await mailingChangeStore.before(sql, 2, stored[0]!.id)).toBeUndefined();
});
