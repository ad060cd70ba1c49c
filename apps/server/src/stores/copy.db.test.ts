import { copyLaw } from '@mailbag/core';
import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { MAILBAG, person } from '../platform/principal.js';
import { copyEventStore } from './copy-event.store.js';
import { copyStore } from './copy.store.js';
import type { PlannedCopy } from './copy-rows.js';
import { ledgerStore } from './ledger.store.js';

let sql: Sql;
let add: RowAdder;
let batch: number;
const at = (hour: number): string => `2027-01-01T${String(hour).padStart(2, '0')}:00:00Z`;
ownTables('each', async (own) => {
  ({ sql, add } = own);
  const mailing = await add('mailing', { name: 'Permits', plan: '{}' });
  batch = await add('batch', { number: 7, mailingId: mailing, mailingName: 'Permits', state: 'making', frozen: '{}', mailed: 1 });
});

const planned = (ordinal: number, part: Partial<PlannedCopy> = {}): PlannedCopy => ({
  code: `C-${ordinal}-${part.position ?? 0}`, recordOrdinal: ordinal, recordKey: `A-${ordinal}`, row: ordinal + 2, position: 0, part: 0, templateId: 1, templateName: 'Permit',
  pages: 1, recipient: `Tenant ${ordinal}`, address: `t${ordinal}@example.org`, path: `2027/A-${ordinal}.pdf`, pathKey: `2027/a-${ordinal}.pdf`,
  wantsPaper: false, isProtected: false, metadata: null, search: `tenant ${ordinal} quagmire`, ...part,
}); // prettier-ignore
const plan = (copies: readonly PlannedCopy[]): Promise<void> =>
  copyStore.addPlanned(sql, { id: batch, number: 7, mailingId: 1, mailingName: 'Permits' } as never, copies, at(8));
const ids = async (): Promise<number[]> => (await sql.query<{ id: number }>('SELECT id FROM copy ORDER BY id')).map(({ id }) => id);

test('copies are planned with their places, codes and words, and found by each', async () => {
  await plan([planned(0), planned(1), planned(1, { position: 1, path: '2027/A-1 b.pdf', pathKey: '2027/a-1 b.pdf' })]);
  expect(await copyStore.isTaken(sql, '2027/a-1.pdf')).toBe(true);
  expect((await copyStore.takenPlaces(sql, ['2027/a-0.pdf', 'free.pdf'])).map(({ pathKey }) => pathKey)).toEqual(['2027/a-0.pdf']);
  expect(await copyStore.byCode(sql, 'C-1-1')).toEqual({ path: '2027/A-1 b.pdf', sha256: null, isProtected: 0, part: 0 });
  expect((await ledgerStore.found(sql, {}, 'quagmire', undefined, 10)).map(({ code }) => code)).toEqual(['C-1-1', 'C-1-0', 'C-0-0']);
  expect((await copyStore.plannedBetween(sql, batch, 1, 2)).map(({ code }) => code)).toEqual(['C-1-0', 'C-1-1']);
});

test('one record has one copy a template and batch, and one place in the archive', async () => {
  await plan([planned(0)]);
  await expect(plan([planned(0, { code: 'other', path: 'x.pdf', pathKey: 'x.pdf' })])).rejects.toThrow(/UNIQUE/);
});

test('what was made has its size and digest, and is neither planned any more nor made twice', async () => {
  await plan([planned(0), planned(1), planned(2)]);
  const [first, second] = await ids();
  await copyStore.setMade(sql, [{ id: first, size: 10, sha256: 'aa' }, { id: second, size: 20, sha256: 'bb' }]); // prettier-ignore
  expect(await copyStore.setState(sql, [first!, second!], copyLaw.make.from, 'made', at(9))).toBe(2);
  expect(await copyStore.setState(sql, [first!], copyLaw.make.from, 'made', at(9))).toBe(0);
  await copyStore.setMade(sql, [{ id: first, size: 99, sha256: 'zz' }]);
  expect((await copyStore.manifestPage(sql, batch, 0, 10)).map(({ size, sha256 }) => [size, sha256])).toEqual([[10, 'aa'], [20, 'bb']]); // prettier-ignore
  expect((await copyStore.manifestPage(sql, batch, first!, 10)).map(({ code }) => code)).toEqual(['C-1-0']);
  expect(await copyStore.firstPlanned(sql, batch)).toEqual({ ordinal: 2 });
  expect((await copyStore.toMail(sql, batch, 0, 5)).map(({ recordOrdinal }) => recordOrdinal)).toEqual([0, 1]);
});

test('who asks for paper is not mailed, and can change their mind in the states in which it can be printed', async () => {
  await plan([planned(0, { wantsPaper: true }), planned(1)]);
  const [paper, mail] = await ids();
  await copyStore.setState(sql, [paper!, mail!], ['planned'], 'made', at(9));
  expect((await copyStore.toMail(sql, batch, 0, 5)).map(({ id }) => id)).toEqual([mail]);
  expect(await copyStore.waitingForPaper(sql)).toEqual({ count: 1 });
  expect((await copyStore.whosePaperChanges(sql, [paper!, mail!], 0, copyLaw.print.from)).map(({ id }) => id)).toEqual([mail]);
  await copyStore.setWantsPaper(sql, true, [mail!]);
  expect(await copyStore.waitingForPaper(sql)).toEqual({ count: 2 });
  await copyStore.noPaper(sql, [paper!, mail!]);
  expect(await copyStore.waitingForPaper(sql)).toEqual({ count: 0 });
});

test('an event is told of those copies alone from whose state it leads, with who did it and why', async () => {
  await plan([planned(0), planned(1)]);
  const [first, second] = await ids();
  await copyStore.setState(sql, [second!], ['planned'], 'made', at(9));
  await copyEventStore.addEvents(sql, [first!, second!], ['planned'], {
    at: at(10),
    who: MAILBAG,
    event: 'make',
    state: 'made',
    detail: null,
  });
  await copyEventStore.addNotes(sql, [first!, second!], { at: at(11), who: person(3, 'Marit'), event: 'find', detail: 'in the tray' });
  expect(await sql.query('SELECT copyId, who, principal, event, state, detail FROM copy_event ORDER BY id')).toEqual([
    { copyId: first, who: 'Mailbag', principal: 'mailbag', event: 'make', state: 'made', detail: null },
    { copyId: first, who: 'Marit', principal: 'person:3', event: 'find', state: 'planned', detail: 'in the tray' },
    { copyId: second, who: 'Marit', principal: 'person:3', event: 'find', state: 'made', detail: 'in the tray' },
  ]);
});

test('what was said by remark comes back as its code and fields, and as words where a register is told', async () => {
  await plan([planned(0)]);
  const [id] = await ids();
  const detail = { code: 'given-up', fields: { attempts: 8, answer: '452 full' } } as const;
  await copyEventStore.addNotes(sql, [id!], { at: at(9), who: MAILBAG, event: 'report', detail });
  const [event] = await copyEventStore.latestEvents(sql);
  expect(event).toMatchObject({ detail, recipient: 'Tenant 0', copyId: id });
  const [change] = await copyEventStore.changesAfter(sql, 0, [], 10);
  expect(change!.detail).toBe('Given up after 8 tries: 452 full');
  expect(await copyEventStore.changesAfter(sql, 0, [99], 10)).toEqual([]);
});

test('trouble is written where it is another, and taken away', async () => {
  await plan([planned(0)]);
  const [id] = await ids();
  await copyStore.setTrouble(sql, [id!], 'mailbox', '4.2.2');
  expect(await copyStore.detail(sql, id!)).toMatchObject({ trouble: 'mailbox', troubleCode: '4.2.2' });
  await copyStore.setTrouble(sql, [id!], null, null);
  expect(await copyStore.detail(sql, id!)).toMatchObject({ trouble: null, troubleCode: null });
});

test('copies of one record go together when they are in the same state and envelope', async () => {
  await plan([planned(0), planned(0, { position: 1, path: 'b.pdf', pathKey: 'b.pdf' }), planned(1)]);
  const [one, two, other] = await ids();
  const [copy] = await copyStore.addressedAll(sql, [one!]);
  expect((await copyStore.together(sql, copy!)).map(({ id }) => id)).toEqual([one, two]);
  await copyStore.setDelivery(sql, [two!, other!], 5, 'new@example.org');
  expect((await copyStore.together(sql, copy!)).map(({ id }) => id)).toEqual([one]);
  expect(await copyStore.addressed(sql, other!)).toMatchObject({ deliveryId: 5, address: 'new@example.org' });
});

test('a record is out until one of its copies comes back, and how often it was reminded is counted', async () => {
  await plan([planned(0), planned(0, { position: 1, path: 'b.pdf', pathKey: 'b.pdf' }), planned(1)]);
  const all = await ids();
  await copyStore.setState(sql, all, ['planned'], 'sent', at(9));
  const reminder = await add('delivery', {
    batchId: batch,
    address: 't',
    messageId: 'r',
    state: 'sent',
    createdAt: at(12),
    kind: 'reminder',
  });
  await add('delivery_copy', { deliveryId: reminder, copyId: all[0]! });
  const out = await copyStore.out(sql, 1);
  expect(out.map(({ recordOrdinal, reminders, lastAt }) => [recordOrdinal, reminders, lastAt])).toEqual([[0, 1, at(12)], [1, 0, at(9)]]); // prettier-ignore
  expect(JSON.parse(out[0]!.copies)).toEqual(all.slice(0, 2));
  await copyStore.setState(sql, [all[1]!], ['sent'], 'returned', at(13));
  expect((await copyStore.out(sql, 1)).map(({ recordOrdinal }) => recordOrdinal)).toEqual([1]);
});

test('copies are forgotten with all that hangs on them, and their values before that', async () => {
  await plan([planned(0, { metadata: '{"Plot":"A-0"}' }), planned(1)]);
  const [first, second] = await ids();
  await copyEventStore.addNotes(sql, [first!, second!], { at: at(9), who: MAILBAG, event: 'find', detail: null });
  await copyStore.clearValues(sql, batch);
  expect(await copyStore.metadataOfOne(sql, batch)).toEqual({ metadata: null });
  await copyStore.drop(sql, [first!]);
  expect(await ids()).toEqual([second]);
  expect(await sql.query('SELECT copyId FROM copy_event')).toEqual([{ copyId: second }]);
  expect((await ledgerStore.found(sql, {}, 'quagmire', undefined, 10)).map(({ id }) => id)).toEqual([second]);
});
