import type { LedgerSort } from '@mailbag/contract';
import { ownTables } from '../../../../testing/own-tables.js';
import type { Sql } from '../persistence/sql.js';
import { copyStore } from './copy.store.js';
import { ledgerStore } from './ledger.store.js';

let sql: Sql;
const when = ['2027-01-01', '2027-01-03', '2027-01-02'];
ownTables('all', async (own) => {
  ({ sql } = own);
  const { add } = own;
  for (const name of ['Permits', 'Renewals']) await add('mailing', { name, plan: '{}', updatedAt: name });
  for (const mailingId of [1, 2]) await add('batch', { number: mailingId, mailingId, mailingName: 'x', state: 'done', frozen: '{}' });
  const names = ['bea', 'Ada', 'Cleo'];
  for (const [index, recipient] of names.entries())
    for (const mailing of [1, 2])
      await copyStore.addPlanned(
        sql,
        { id: mailing, number: mailing, mailingId: mailing, mailingName: mailing === 1 ? 'Permits' : 'Renewals' } as never,
        [
          {
            code: `${mailing}-${index}`, recordOrdinal: index, recordKey: `A-${index}`, row: index + 2, position: 0, part: 0, templateId: mailing, templateName: 'Permit', pages: 1,
            recipient, address: `${recipient}@example.org`, path: `${mailing}/${index}.pdf`, pathKey: `${mailing}/${index}.pdf`, wantsPaper: index === 0,
            isProtected: false, metadata: null, search: `${recipient} mill lane`.toLowerCase(),
          }, // prettier-ignore
        ],
        when[index]!,
      );
  await sql.query("UPDATE copy SET state = 'bounced', trouble = 'mailbox' WHERE mailingId = 1 AND recipient = 'Ada'");
  await sql.query("UPDATE copy SET state = 'sent' WHERE mailingId = 2");
});

const page = async (...[filter, search, sort, last, limit]: [object, string?, LedgerSort?, number?, number?]) =>
  (await ledgerStore.page(sql, filter, search ?? '', sort ?? 'newest', last, limit ?? 10)).map(({ code }) => code);

test('filters narrow, one by one and together', async () => {
  expect(await page({ mailing: 1 })).toEqual(['1-2', '1-1', '1-0']);
  expect(await page({ mailing: 1, state: 'bounced' })).toEqual(['1-1']);
  expect(await page({ trouble: 'mailbox' })).toEqual(['1-1']);
  expect(await page({ batch: 2, template: 2, paper: true })).toEqual(['2-0']);
  expect(await page({ since: '2027-01-02', until: '2027-01-03' })).toEqual(['2-2', '1-2']);
  expect(await page({ mailing: 3 })).toEqual([]);
});

test.each([
  ['newest', ['2-2', '1-2', '2-1', '1-1', '2-0', '1-0']],
  ['oldest', ['1-0', '2-0', '1-1', '2-1', '1-2', '2-2']],
  ['recipient', ['1-1', '2-1', '1-0', '2-0', '1-2', '2-2']],
  ['recipient-down', ['2-2', '1-2', '2-0', '1-0', '2-1', '1-1']],
  ['changed', ['2-1', '1-1', '2-2', '1-2', '2-0', '1-0']],
  ['changed-up', ['1-0', '2-0', '1-2', '2-2', '1-1', '2-1']],
] as const)('by %s every copy comes once, page after page, and so does each of the few that a search finds', async (sort, all) => {
  for (const ask of [ledgerStore.page, ledgerStore.pageOfFew]) {
    const [filter, search, expected] =
      ask === ledgerStore.page ? [{}, '', [...all]] : [{ mailing: 1 }, 'mill', all.filter((code) => code.startsWith('1'))];
    const seen: string[] = [];
    for (let last: number | undefined; ;) {
      const rows = await ask(sql, filter, search, sort, last, 2);
      if (rows.length === 0) break;
      seen.push(...rows.map(({ code }) => code));
      last = rows.at(-1)!.id;
    }
    expect(seen).toEqual(expected);
  }
});

test('whether a search finds few is known without all that it finds', async () => {
  expect(await ledgerStore.findsUpTo(sql, 'mill', 6)).toBe(true);
  expect(await ledgerStore.findsUpTo(sql, 'mill', 5)).toBe(false);
  expect(await ledgerStore.findsUpTo(sql, 'nobody', 0)).toBe(true);
});

test('a search finds whole words and beginnings, and its counts are those of what it finds', async () => {
  expect(await page({ mailing: 1 }, 'ada')).toEqual(['1-1']);
  expect(await page({}, 'cl*')).toEqual(['2-2', '1-2']);
  const found = await ledgerStore.countsFound(sql, {}, 'mill', 100);
  expect(Object.fromEntries(found.map(({ state, count }) => [state, count]))).toEqual({ planned: 2, bounced: 1, sent: 3 });
  expect(await ledgerStore.countsOfFew(sql, { mailing: 1 }, 'ada')).toEqual([{ state: 'bounced', count: 1 }]);
  expect((await ledgerStore.hasTerm(sql, 'ada')).length + (await ledgerStore.hasTerm(sql, 'nobody')).length).toBe(1);
  expect((await ledgerStore.hasLongerTerm(sql, 'cle', 'clf')).length).toBe(1);
});

test('counts follow each change of a state, whichever way they are asked for', async () => {
  const counts = async (filter: object) =>
    Object.fromEntries((await ledgerStore.countsByState(sql, filter)).map(({ state, count }) => [state, count]));
  expect(await counts({})).toEqual({ planned: 2, bounced: 1, sent: 3 });
  expect(await counts({ since: '2027-01-02' })).toEqual({ planned: 1, bounced: 1, sent: 2 });
  expect(await counts({ paper: true, mailing: 1 })).toEqual({ planned: 1 });
  expect(await counts({ trouble: 'mailbox' })).toEqual({ bounced: 1 });
  expect(await ledgerStore.counted(sql, { state: 'sent', mailing: 2 })).toBe(3);
  expect(await ledgerStore.counted(sql, { mailing: 9 })).toBe(0);
  expect(await ledgerStore.total(sql)).toEqual({ count: 6 });
  expect(await ledgerStore.inStateByMailing(sql, 'bounced')).toEqual([{ mailingId: 1, count: 1 }]);
  expect(await ledgerStore.countsOfBatch(sql, 1)).toEqual(expect.arrayContaining([{ state: 'planned', count: 2 }, { state: 'bounced', count: 1 }])); // prettier-ignore
  expect((await ledgerStore.countsByMailing(sql)).map(({ name, state, count }) => [name, state, count])).toEqual(
    expect.arrayContaining([['Renewals', 'sent', 3], ['Permits', 'planned', 2]]), // prettier-ignore
  );
  await sql.query("UPDATE mailing SET archivedAt = '2027-01-01' WHERE name = 'Renewals'");
  expect(new Set((await ledgerStore.countsByMailing(sql)).map(({ name }) => name))).toEqual(new Set(['Permits']));
  await sql.query('UPDATE mailing SET archivedAt = NULL');
});

test('words are added where an address was corrected, and those of the record go when its time is over', async () => {
  const id = (await ledgerStore.page(sql, { mailing: 1, state: 'bounced' }, '', 'newest', undefined, 1))[0]!.id;
  await ledgerStore.addWords(sql, ' corrected', [id]);
  expect(await page({}, 'corrected')).toEqual(['1-1']);
  await ledgerStore.wordsWithoutRecords(sql, 1);
  await ledgerStore.optimise(sql);
  expect(await page({ mailing: 1 }, 'mill')).toEqual([]);
  // What the ledger itself shows is found on.
  expect(await page({}, 'permits')).toEqual(['1-2', '1-1', '1-0']);
  expect(await page({ mailing: 2 }, 'mill')).toHaveLength(3);
});
