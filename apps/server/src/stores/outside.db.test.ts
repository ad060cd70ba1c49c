import { remark } from '@mailbag/core';
import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { mailServerStore } from './mail-server.store.js';
import type { MailServerValues } from './mail-server.store.js';
import { printerStore } from './printer.store.js';
import { registerStore } from './register.store.js';
import { reportStore } from './report.store.js';
import { secretStore } from './secret.store.js';
import { senderStore } from './sender.store.js';

/** What Mailbag has outside of itself: mail servers, senders, registers, printers, and the reports that come back. */
let sql: Sql;
let add: RowAdder;
ownTables('each', (own) => void ({ sql, add } = own));

const server: MailServerValues = {
  name: 'Post office', host: 'mail.example', port: 587, security: 'starttls', checkCertificate: 1, user: '', sealed: '', perMinute: 0, perHour: 0,
  perDomainMinute: 0, connections: 2, limitMb: 25, hours: null,
}; // prettier-ignore
const restOf = async () =>
  (
    await sql.query<{ restUntil: string | null; restDetail: string | null; restCount: number }>(
      'SELECT restUntil, restDetail, restCount FROM mail_server',
    )
  )[0]!;

test('a mail server rests with the reason, longer each time, until it works again or is changed', async () => {
  await mailServerStore.add(sql, server, '2027-01-01');
  await mailServerStore.rest(sql, '2027-01-02', remark('sender-unconfirmed'), 1, 1);
  expect(await mailServerStore.restCount(sql, 1)).toEqual({ restCount: 1 });
  expect((await restOf()).restDetail).toContain('sender-unconfirmed');
  // A clock that was set back.
  await mailServerStore.bringRestBack(sql, '2027-01-01', '2027-01-01T12:00');
  expect((await restOf()).restUntil).toBe('2027-01-01');
  await mailServerStore.endRest(sql, 1);
  expect(await restOf()).toEqual({ restUntil: null, restDetail: null, restCount: 0 });
  await mailServerStore.rest(sql, '2027-01-02', '421 busy', 2, 1);
  await mailServerStore.set(sql, 1, { ...server, host: 'other.example', hours: '{"days":[1]}' });
  expect(await restOf()).toEqual({ restUntil: null, restDetail: null, restCount: 0 });
});

test('a sender is confirmed by its code, and loses that when it becomes another one', async () => {
  await mailServerStore.add(sql, server, '2027-01-01');
  const values = { serverId: 1, name: 'Office', address: 'o@example.org', replyTo: null, dkimDomain: '', dkimSelector: '', dkimSealed: '' };
  await senderStore.add(sql, values, '2027-01-01');
  await senderStore.setCode(sql, 'hash', '2027-01-02', 1);
  await senderStore.countCodeTry(sql, 1);
  const stored = async () => (await sql.query<object>('SELECT codeHash, codeTries, confirmedAt, name FROM sender'))[0];
  expect(await stored()).toEqual({ codeHash: 'hash', codeTries: 1, confirmedAt: null, name: 'Office' });
  await senderStore.confirm(sql, '2027-01-01T09:00', 1);
  await senderStore.set(sql, 1, { ...values, name: 'The office' }, true);
  expect(await stored()).toEqual({ codeHash: null, codeTries: 0, confirmedAt: '2027-01-01T09:00', name: 'The office' });
  await senderStore.set(sql, 1, { ...values, address: 'new@example.org' }, false);
  expect(await stored()).toMatchObject({ confirmedAt: null });
  expect(await senderStore.countByServer(sql)).toEqual([{ serverId: 1, count: 1 }]);
});

test('a register is due unless it is paused, fails with its reason, and goes on where it was', async () => {
  const values = { name: 'b', kind: 'folder' as const, settings: '{}', sealed: '', mailings: null, paused: false };
  await registerStore.add(sql, values, '2027-01-01');
  await registerStore.add(sql, { ...values, name: 'A', paused: true }, '2027-01-01');
  expect((await registerStore.list(sql)).map(({ name }) => name)).toEqual(['A', 'b']);
  expect((await registerStore.due(sql, '2027-01-01', '2030')).map(({ id }) => id)).toEqual([1]);
  await registerStore.failed(sql, 2, 'no such table', '2027-01-05', 1);
  expect(await registerStore.due(sql, '2027-01-02', '2030')).toEqual([]);
  expect(await registerStore.inTrouble(sql)).toEqual([{ name: 'b', failure: 'no such table' }]);
  // Its time lies further ahead than any can: the clock was set back.
  expect((await registerStore.due(sql, '2027-01-02', '2027-01-03')).map(({ id }) => id)).toEqual([1]);
  await registerStore.reported(sql, 17, '2027-01-05', 1);
  expect(await registerStore.byId(sql, 1)).toMatchObject({ position: 17, tries: 0, failure: null, reportedAt: '2027-01-05' });
  await registerStore.set(sql, 1, { ...values, name: 'c' }, '2027-01-06');
  expect(await registerStore.byId(sql, 1)).toMatchObject({ name: 'c', position: 17 });
  await registerStore.drop(sql, 1);
  expect(await registerStore.byId(sql, 1)).toBeUndefined();
});

test('printers are listed by name', async () => {
  await printerStore.add(sql, 'upstairs', 'ipp://a', '2027');
  await printerStore.add(sql, 'Hall', 'ipp://b', '2027');
  expect((await printerStore.list(sql)).map(({ name }) => name)).toEqual(['Hall', 'upstairs']);
  expect([await printerStore.uri(sql, 1), await printerStore.name(sql, 1)]).toEqual([{ uri: 'ipp://a' }, { name: 'upstairs' }]);
  await printerStore.drop(sql, 1);
  expect(await printerStore.uri(sql, 1)).toBeUndefined();
});

test('a report counts once, what is in doubt comes first, and a person settles it once', async () => {
  const report = {
    digest: 'a', at: '2027-01-01', way: 'imap', kind: 'bounce', sender: 's', subject: 'x', detail: '550', deliveryId: null, doubt: null, facts: null,
  }; // prettier-ignore
  expect(await reportStore.add(sql, report)).toBe(true);
  expect(await reportStore.add(sql, report)).toBe(false);
  await reportStore.add(sql, { ...report, digest: 'b', doubt: remark('report-by-address'), facts: '{}' });
  await reportStore.add(sql, { ...report, digest: 'c' });
  const [first] = await reportStore.latest(sql);
  expect(first).toMatchObject({ doubt: { code: 'report-by-address' }, detail: '550', settled: null });
  expect(await reportStore.doubts(sql)).toEqual({ count: 1 });
  expect(await reportStore.doubtful(sql, first!.id)).toMatchObject({ facts: '{}' });
  await reportStore.settle(sql, 'dismissed', first!.id);
  expect(await reportStore.doubtful(sql, first!.id)).toBeUndefined();
  await reportStore.dropBefore(sql, '2027-06-01');
  expect(await reportStore.latest(sql)).toEqual([]);
});

test('tries of a message are counted until it is read', async () => {
  expect(await reportStore.countTry(sql, 'd', '2027-01-01')).toEqual({ tries: 1 });
  expect(await reportStore.countTry(sql, 'd', '2027-01-01')).toEqual({ tries: 2 });
  await reportStore.dropTry(sql, 'd');
  expect(await reportStore.countTry(sql, 'd', '2027-01-01')).toEqual({ tries: 1 });
  await reportStore.dropTriesBefore(sql, '2028');
  expect(await sql.query('SELECT 1 FROM incoming_try')).toEqual([]);
});

test('all that have a secret are named, so that whoever lost the key knows what to enter again', async () => {
  await mailServerStore.add(sql, { ...server, sealed: 'x' }, '2027');
  await add('setting', { name: 'bounces', value: '{"sealed":"x"}' });
  await registerStore.add(sql, { name: 'Archive', kind: 'webdav', settings: '{}', sealed: 'x', mailings: null, paused: false }, '2027');
  expect((await secretStore.names(sql)).map(({ name }) => name).sort()).toEqual([
    'bounce mailbox',
    'mail server Post office',
    'register Archive',
  ]);
});
