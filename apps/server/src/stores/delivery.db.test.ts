import { remark } from '@mailbag/core';
import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { deliveryStore } from './delivery.store.js';

let sql: Sql;
let add: RowAdder;
ownTables('each', async (own) => {
  ({ sql, add } = own);
  await add('batch', { number: 1, mailingId: 1, mailingName: 'Permits', state: 'sending', frozen: '{}' });
});

const at = (minute: number): string => `2020-01-01T08:${String(minute).padStart(2, '0')}:00.000Z`;
let tokens = 0;
const delivery = (part: Partial<Parameters<typeof deliveryStore.add>[1]> = {}): Promise<number> =>
  deliveryStore.add(sql, {
    batchId: 1, recordOrdinal: 0, address: 'ada@example.org', messageId: `<${++tokens}@x>`, held: false, nextTryAt: at(1), createdAt: at(0), kind: 'copies', senderId: 1,
    serverId: 1, token: `token ${tokens}`, domain: 'example.org', startAt: null, ...part,
  }); // prettier-ignore
const stateOf = async (id: number): Promise<string> =>
  (await sql.query<{ state: string }>('SELECT state FROM delivery WHERE id = ?', [id]))[0]!.state;
const due = async (minute: number, limit = 10): Promise<number[]> =>
  (await deliveryStore.due(sql, 1, at(minute), limit)).map(({ id }) => id);

test('what is due comes by its time, of its own server alone, and neither held nor before its beginning', async () => {
  const late = await delivery({ nextTryAt: at(5) });
  const early = await delivery({ nextTryAt: at(2) });
  await delivery({ serverId: 2 });
  await delivery({ held: true });
  await delivery({ startAt: at(30) });
  expect(await due(1)).toEqual([]);
  expect(await due(2)).toEqual([early]);
  expect(await due(10)).toEqual([early, late]);
  expect(await due(10, 1)).toEqual([early]);
});

test('a delivery is claimed once, and ended by its claim alone', async () => {
  const id = await delivery();
  expect(await deliveryStore.claim(sql, id, 'mine', at(1), at(9))).toBe(true);
  expect(await deliveryStore.claim(sql, id, 'other', at(1), at(9))).toBe(false);
  expect((await deliveryStore.claimed(sql, [id]))[0]).toMatchObject({ claim: 'mine', attempts: 1, copies: 0 });
  expect(await deliveryStore.handOver(sql, { id, claim: 'other' }, at(2), 'digest')).toBe(false);
  expect(await deliveryStore.handOver(sql, { id, claim: 'mine' }, at(2), 'digest')).toBe(true);
  expect(await deliveryStore.endClaim(sql, { id, claim: 'other' }, { state: 'sent', detail: '250' })).toBe(false);
  expect(await deliveryStore.endClaim(sql, { id, claim: 'mine' }, { state: 'sent', detail: '250 OK' })).toBe(true);
  expect(await deliveryStore.endClaim(sql, { id, claim: 'mine' }, { state: 'bounced', detail: 'late' })).toBe(false);
  expect(await deliveryStore.ofCopy(sql, id)).toMatchObject({ state: 'sent', detail: '250 OK' });
});

test('claims whose owner is gone are found: all at a start, later those whose lease ran out and nobody works on', async () => {
  const [one, two, three] = [await delivery(), await delivery(), await delivery()];
  for (const [id, until] of [[one, at(5)], [two, at(5)], [three, at(50)]] as const) await deliveryStore.claim(sql, id, 'x', at(1), until); // prettier-ignore
  expect((await deliveryStore.claimedBefore(sql)).map(({ id }) => id)).toEqual([one, two, three]);
  expect((await deliveryStore.overdue(sql, at(10), [two])).map(({ id }) => id)).toEqual([one]);
});

test('what is tried again waits for its time, counts its tries, and goes before what is new at the same time', async () => {
  const fresh = await delivery({ nextTryAt: at(9) });
  const again = await delivery();
  await deliveryStore.claim(sql, again, 'x', at(1), at(9));
  await deliveryStore.endClaim(sql, { id: again, claim: 'x' }, { state: 'retrying', detail: '451', nextTryAt: at(9), attempts: 3 });
  expect(await due(8)).toEqual([]);
  expect((await due(9)).sort()).toEqual([fresh, again].sort());
  expect(await deliveryStore.ofCopy(sql, again)).toMatchObject({ attempts: 3, state: 'retrying' });
});

test('a domain is put off as a whole, and times that lie ahead of a clock that was set back are brought back', async () => {
  const [here, there] = [await delivery(), await delivery({ domain: 'other.example' })];
  await deliveryStore.putOff(sql, 1, 'example.org', at(5), at(20));
  expect(await due(10)).toEqual([there]);
  await sql.query('UPDATE delivery SET updatedAt = ?, nextTryAt = ? WHERE id = ?', ['2030-01-01', '2030-01-01', here]);
  await deliveryStore.bringBack(sql, at(10), at(11));
  expect((await due(10)).sort()).toEqual([here, there].sort());
});

test('a batch is held back, let go on and cancelled; what is on its way stays where it is', async () => {
  const [waits, sends] = [await delivery(), await delivery()];
  await deliveryStore.claim(sql, sends, 'x', at(1), at(9));
  await deliveryStore.hold(sql, 1, true);
  expect(await due(10)).toEqual([]);
  await deliveryStore.hold(sql, 1, false);
  expect(await due(10)).toEqual([waits]);
  expect(await deliveryStore.firstWaiting(sql, 1)).toEqual({ serverId: 1, nextTryAt: at(1) });
  await deliveryStore.cancel(sql, 1, at(2));
  expect([await stateOf(waits), await stateOf(sends)]).toEqual(['withdrawn', 'sending']);
  expect(await deliveryStore.isOpen(sql, 1)).toBe(true);
  await deliveryStore.endClaim(sql, { id: sends, claim: 'x' }, { state: 'sent', detail: '250' });
  expect(await deliveryStore.isOpen(sql, 1)).toBe(false);
  expect(await deliveryStore.firstWaiting(sql, 1)).toBeNull();
});

test('a report finds its delivery by token, by message, or by the last message to an address', async () => {
  const id = await delivery({ token: 'abc' });
  await deliveryStore.addMessageId(sql, '<m@x>', id);
  expect((await deliveryStore.reportedOn(sql, { token: 'abc' }))?.id).toBe(id);
  expect((await deliveryStore.reportedOn(sql, { messageIds: ['<n@x>', '<m@x>'] }))?.id).toBe(id);
  expect(await deliveryStore.reportedOn(sql, { messageIds: ['<n@x>'] })).toBeUndefined();
  // Only what went out can come back.
  expect(await deliveryStore.reportedOn(sql, { address: 'ADA@example.org', since: at(0) })).toBeUndefined();
  await deliveryStore.claim(sql, id, 'x', at(1), at(9));
  await deliveryStore.endClaim(sql, { id, claim: 'x' }, { state: 'sent', detail: '250' });
  expect((await deliveryStore.reportedOn(sql, { address: 'ADA@example.org', since: at(0) }))?.id).toBe(id);
  expect(await deliveryStore.byToken(sql, 'abc')).toHaveLength(1);
  expect(await deliveryStore.byToken(sql, 'abd')).toHaveLength(0);
});

test('what went out can bounce, be unconfirmed and be settled by a person, with the words or the remark that says why', async () => {
  const id = await delivery();
  await deliveryStore.bounce(sql, '550', at(2), id);
  expect(await stateOf(id)).toBe('queued');
  await deliveryStore.unconfirm(sql, remark('may-have-gone-out'), at(2), [id]);
  expect(await deliveryStore.ofCopy(sql, id)).toMatchObject({ state: 'unconfirmed', detail: { code: 'may-have-gone-out' } });
  await deliveryStore.settleSent(sql, at(3), at(3), id);
  expect(await deliveryStore.sentSince(sql, 1, at(2))).toEqual([{ domain: 'example.org', sentAt: at(3) }]);
  await deliveryStore.bounce(sql, '550 gone', at(4), id);
  expect(await deliveryStore.ofCopy(sql, id)).toMatchObject({ state: 'bounced', detail: '550 gone' });
});

test('who has it by now and who did not take it is remembered; what a sender still has to send is counted', async () => {
  const id = await delivery({ senderId: 4 });
  await deliveryStore.remember(sql, id, '["a@x"]', null);
  expect(await deliveryStore.accepted(sql, id)).toEqual({ others: '["a@x"]' });
  expect(await deliveryStore.waitingOf(sql, 4)).toEqual({ count: 1 });
  expect(await deliveryStore.waitingOf(sql, 5)).toEqual({ count: 0 });
  expect(await deliveryStore.waitingByBatch(sql)).toEqual([{ id: 1, number: 1, mailingName: 'Permits', messages: 1, copies: 0 }]);
});

test('all that is known of the deliveries of a batch can be forgotten', async () => {
  const id = await delivery();
  await deliveryStore.addMessageId(sql, '<m@x>', id);
  await deliveryStore.dropMessageIdsOfBatch(sql, 1);
  await deliveryStore.dropOfBatch(sql, 1);
  expect(await sql.query('SELECT 1 FROM delivery UNION ALL SELECT 1 FROM delivery_message')).toEqual([]);
});
