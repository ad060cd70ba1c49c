import { MAILBAG, person } from '../platform/principal.js';
import type { Sql } from '../persistence/sql.js';
import { ownDatabase, ownPostgres } from '../../../../testing/own-database.js';

interface Opened {
  sql: Sql;
  close: () => Promise<void>;
}
const openers: Record<string, () => Promise<Opened>> = {
  sqlite: async () => {
    const { database, close } = await ownDatabase();
    return { sql: database.manager, close };
  },
  postgres: () => ownPostgres(['history', 'finding', 'acceptance', 'job']),
};

/** The same stores, the same questions, the same answers: a store that is tried here can stand on either database. */
describe.each(Object.keys(openers))('on %s', (name) => {
  let opened: Opened;
  let stores: typeof import('./finding.store.js') & typeof import('./history.store.js') & typeof import('./job.store.js');
  beforeAll(async () => {
    jest.resetModules();
    process.env['MAILBAG_DIALECT'] = name;
    stores = { ...(await import('./finding.store.js')), ...(await import('./history.store.js')), ...(await import('./job.store.js')) };
    opened = await openers[name]!();
    // A finding belongs to a mailing, where there are such.
    if (name === 'sqlite')
      await opened.sql.query("INSERT INTO mailing (id, name, plan, version, createdAt, updatedAt) VALUES (1, 'Permits', '{}', 1, '', '')");
  }, 60_000);
  afterAll(async () => {
    delete process.env['MAILBAG_DIALECT'];
    await opened?.close();
  });

  test('what was done is found by page, word and who did it', async () => {
    const { historyStore } = stores;
    for (const [at, who] of [
      ['2027-01-01T08:00:00Z', MAILBAG],
      ['2027-01-02T08:00:00Z', person(7, 'Marit')],
    ] as const)
      await historyStore.add(opened.sql, at, who, 'changed a mailing', 'Permits 50%', null);
    expect((await historyStore.page(opened.sql, 1_000_000, '%permits 50\\%%')).length).toBe(name === 'sqlite' ? 2 : 0);
    expect((await historyStore.page(opened.sql, 1_000_000, '%Permits 50\\%%')).map(({ who }) => who)).toEqual(['Marit', 'Mailbag']);
    expect((await historyStore.page(opened.sql, 1_000_000, '%Permits 60%')).length).toBe(0);
    // What Mailbag did itself is found as such, not as what a person did who has that name.
    const last = await historyStore.lastSince(opened.sql, '2026-01-01', MAILBAG, 'changed a mailing', 'Permits 50%');
    await historyStore.setDetail(opened.sql, 'map', last!.id);
    expect((await historyStore.lastSince(opened.sql, '2026-01-01', MAILBAG, 'changed a mailing', 'Permits 50%'))!.detail).toBe('map');
    expect(
      await historyStore.lastSince(opened.sql, '2026-01-01', person(7, 'Mailbag'), 'changed a mailing', 'Permits 50%'),
    ).toBeUndefined();
  });

  test('findings are counted, accepted and taken back', async () => {
    const { findingStore } = stores;
    const { sql } = opened;
    const finding = (ordinal: number, code: string, severity: string, mend: string | null = null) =>
      findingStore.add(sql, 1, {
        ordinal,
        row: ordinal + 2,
        code,
        severity,
        body: '{}',
        checkName: code,
        columnName: 'Name',
        mend,
        acceptanceId: null,
      });
    await finding(0, 'stray-space', 'look', 'Quist');
    await finding(1, 'stray-space', 'look', 'Brandt');
    await finding(1, 'iban-wrong', 'stop');
    expect(await findingStore.totals(sql, 1)).toEqual({ stopped: 1, flagged: 2, accepted: 0 });
    const [, look] = await findingStore.groups(sql, 1);
    expect(look).toMatchObject({ code: 'stray-space', findings: 2, records: 2, mends: 2, accepted: 0 });
    expect((await findingStore.mends(sql, 1, { code: 'stray-space', row: 3 })).map(({ value }) => value)).toEqual(['Brandt']);
    const [one] = await findingStore.looksAt(sql, 1, 2, 'stray-space', 'Name');
    await findingStore.accept(sql, one!.id, {
      mailingId: 1,
      recordKey: 'A-1',
      code: 'stray-space',
      column: 'Name',
      field: '',
      value: 'Quist ',
      reason: 'is meant',
      who: person(1, 'Marit'),
      at: '2027-01-01',
    });
    const accepted = { mailingId: 1, accepted: true };
    expect((await findingStore.count(sql, accepted))!.total).toBe(1);
    const [page] = await findingStore.page(sql, accepted, { sort: 'row', isDown: false }, 0, 10);
    for (const sort of ['row', 'kind', 'column', 'value'] as const)
      expect(await findingStore.page(sql, { ...accepted, among: [1_000_000] }, { sort, isDown: true }, 0, 10)).toEqual([]);
    expect(page).toMatchObject({ ordinal: 0, reason: 'is meant', who: 'Marit' });
    await findingStore.takeBack(sql, 1, page!.acceptanceId!);
    await findingStore.dropAcceptance(sql, 1, page!.acceptanceId!);
    expect((await findingStore.count(sql, accepted))!.total).toBe(0);
    await findingStore.dropOfChecks(sql, 1, ['stray-space'], 1);
    expect((await findingStore.flagged(sql, 1)).map(({ ordinal }) => ordinal)).toEqual([0, 1]);
    await findingStore.dropOfChecks(sql, 1, ['stray-space', 'nothing'], null);
    expect((await findingStore.stopped(sql, 1)).map(({ ordinal }) => ordinal)).toEqual([1]);
    await findingStore.dropOfMailings(sql, [1, 2]);
    expect(await findingStore.flagged(sql, 1)).toEqual([]);
  });

  test('a job is claimed once, asked for again while it runs, and left by whoever is gone', async () => {
    const { jobStore } = stores;
    const { sql } = opened;
    const wanted = {
      kind: 'batch',
      key: '1',
      subject: 'Batch 1',
      priority: 0,
      payload: 'null',
      who: 'Marit',
      principal: 'person:1',
      everyMs: null,
      dueAt: 1000,
    };
    await jobStore.add(sql, wanted, 900);
    await jobStore.add(sql, { ...wanted, kind: 'check', priority: 5 }, 900);
    expect(await jobStore.due(sql, 999, 10)).toEqual([]);
    const [first, second] = await jobStore.due(sql, 1000, 10);
    expect([first!.kind, second!.kind]).toEqual(['check', 'batch']);
    expect(await jobStore.claim(sql, second!, 'me', 5000, 1000)).toMatchObject({ kind: 'batch', attempts: 1 });
    expect(await jobStore.claim(sql, second!, 'somebody else', 5000, 1000)).toBeUndefined();
    await jobStore.add(sql, { ...wanted, payload: '"more"' }, 1100);
    expect(await jobStore.byKey(sql, 'batch', '1')).toMatchObject({
      state: 'running',
      again: 1,
      lease: 'me',
      payload: '"more"',
      attempts: 1,
    });
    // Whoever claimed it does not renew it any more.
    expect((await jobStore.due(sql, 5001, 10)).map(({ kind }) => kind)).toEqual(['check', 'batch']);
    const { id } = (await jobStore.byKey(sql, 'batch', '1'))!;
    // One that does not run any more is not renewed with the others.
    await jobStore.renew(sql, 'me', [id + 1000], 9000);
    expect((await jobStore.due(sql, 5001, 10)).map(({ kind }) => kind)).toEqual(['check', 'batch']);
    await jobStore.renew(sql, 'me', [id], 9000);
    expect((await jobStore.due(sql, 5001, 10)).map(({ kind }) => kind)).toEqual(['check']);
    await jobStore.releaseAll(sql);
    expect(await jobStore.byKey(sql, 'batch', '1')).toMatchObject({ state: 'waiting', lease: null });
    // What repeats is not put off for ever by a clock that was set back.
    await jobStore.repeat(sql, { ...wanted, kind: 'sweep', everyMs: 100, dueAt: 9_000_000 }, 1000);
    expect((await jobStore.due(sql, 1000, 10)).map(({ kind }) => kind)).toContain('sweep');
    expect(await jobStore.nextAt(sql)).toBe(1000);
    expect(Object.fromEntries((await jobStore.counts(sql)).map(({ state, count }) => [state, count]))).toEqual({ waiting: 3 });
  });
});
