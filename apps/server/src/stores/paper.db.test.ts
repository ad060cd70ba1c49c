import { remark } from '@mailbag/core';
import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { person } from '../platform/principal.js';
import { printRunStore } from './print-run.store.js';

let sql: Sql;
let add: RowAdder;
let copies: number[];
ownTables('each', async (own) => {
  ({ sql, add } = own);
  await add('batch', { number: 1, mailingId: 1, mailingName: 'Permits', state: 'sending', frozen: '{}', mailed: 1 });
  copies = [];
  const parts: Record<string, string | number | null>[] = [
    { state: 'made', deliveryId: null },
    { state: 'bounced', deliveryId: 5 },
    { state: 'made', deliveryId: 6, wantsPaper: 1 },
    { state: 'sent', deliveryId: 7 },
  ];
  for (const [index, part] of parts.entries())
    copies.push(
      await add('copy', {
        code: `c${index}`,
        batchId: 1,
        mailingId: 1,
        mailingName: 'Permits',
        recordOrdinal: index,
        pathKey: `p${index}`,
        ...part,
      }),
    );
});

const run = async (of: readonly number[] = copies.slice(0, 2)): Promise<number> => {
  const number = ((await printRunStore.lastNumber(sql))?.number ?? 0) + 1;
  const id = await printRunStore.add(sql, {
    number,
    name: `Run ${number}`,
    options: { duplex: true },
    copies: of.length,
    recipients: 1,
    who: person(2, 'Bo'),
    createdAt: '2027-01-01',
  });
  await printRunStore.addCopies(sql, id, of.map((copy) => ({ id: copy, recipient: 'Ada', postalCode: 'P01067' }))); // prettier-ignore
  return id;
};
const reasons = async (of: object = {}) => (await printRunStore.gathered(sql, of)).map(({ id, reason }) => [id, reason]);

test('copies wait for paper that nobody can be mailed, that came back, or that are asked for; those in a run do not', async () => {
  expect(await reasons()).toEqual([[copies[0], 'no-address'], [copies[1], 'bounced'], [copies[2], 'asked']]); // prettier-ignore
  expect(await reasons({ mailing: 2 })).toEqual([]);
  expect(await reasons({ batch: 1 })).toHaveLength(3);
  const id = await run();
  expect(await reasons()).toEqual([[copies[2], 'asked']]);
  await printRunStore.move(sql, 'cancelled', null, '2027-01-02', id, 'making');
  expect(await reasons()).toHaveLength(3);
  // What is made may be about to be queued.
  await sql.query("UPDATE batch SET state = 'making'");
  expect(await reasons()).toEqual([]);
});

test('a run keeps its copies in their order, with the sheet on which each begins', async () => {
  const id = await run([copies[1]!, copies[0]!]);
  expect((await printRunStore.candidates(sql, id)).map((copy) => copy.id)).toEqual([copies[1], copies[0]]);
  await printRunStore.setSheets(sql, [[copies[1], 1], [copies[0], 3]], id); // prettier-ignore
  expect((await printRunStore.lines(sql, id)).map(({ copyId, sheet, postalCode }) => [copyId, sheet, postalCode])).toEqual([
    [copies[1], 1, 'P01067'],
    [copies[0], 3, 'P01067'],
  ]);
  await printRunStore.ready(sql, 4, 6, 1000, '2027-01-02', id);
  expect(await printRunStore.one(sql, id)).toMatchObject({ state: 'ready', sheets: 4, pages: 6, size: 1000, who: 'Bo' });
  expect(await printRunStore.runsOfCopy(sql, copies[0]!)).toEqual([{ id, number: 1, state: 'ready', sheet: 3 }]);
  expect(await sql.query('SELECT principal FROM print_run')).toEqual([{ principal: 'person:2' }]);
});

test('a run moves only from the state that was seen, and says why by word or by remark', async () => {
  const id = await run();
  expect(await printRunStore.move(sql, 'failed', remark('run-not-made'), '2027-01-02', id, 'ready')).toBe(0);
  expect(await printRunStore.move(sql, 'failed', remark('run-not-made'), '2027-01-02', id, 'making')).toBe(1);
  expect(await printRunStore.inTrouble(sql)).toEqual([{ number: 1, detail: { code: 'run-not-made', fields: {} } }]);
  expect(await printRunStore.printed(sql, 'by hand', '2027-01-03', id, 'failed')).toBe(1);
  expect((await printRunStore.latest(sql))[0]).toMatchObject({ state: 'printed', detail: 'by hand' });
});

test('what lies at a printer is known, and what it says of it', async () => {
  const id = await run();
  await printRunStore.setPrinter(sql, 3, id);
  expect(await printRunStore.atPrinter(sql, 3)).toBeUndefined();
  await printRunStore.accepted(sql, 77, id);
  expect(await printRunStore.atPrinter(sql, 3)).toEqual({ number: 1 });
  await printRunStore.say(sql, 'out of paper', id);
  expect((await printRunStore.underWay(sql))[0]).toMatchObject({ jobId: 77, detail: 'out of paper' });
  expect(await printRunStore.open(sql)).toEqual({ count: 1 });
  expect(await printRunStore.openWith(sql, copies)).toEqual([
    { id: copies[0], code: 'c0', run: 1 },
    { id: copies[1], code: 'c1', run: 1 },
  ]);
  expect(await printRunStore.ofBatch(sql, 1)).toEqual([{ runId: id }]);
  expect((await printRunStore.copies(sql, id)).map((copy) => copy.state)).toEqual(['made', 'bounced']);
});

test('copies that are chosen go to paper in the states in which they can', async () => {
  expect((await printRunStore.chosenForPaper(sql, copies)).map((copy) => copy.id)).toEqual(copies.slice(0, 3));
});
