import { ownTables } from '../../../../testing/own-tables.js';
import type { RowAdder } from '../../../../testing/rows.js';
import type { Sql } from '../persistence/sql.js';
import { person } from '../platform/principal.js';
import { accountStore } from './account.store.js';
import { savedViewStore } from './saved-view.store.js';

let sql: Sql;
let add: RowAdder;
ownTables('each', async (own) => {
  ({ sql, add } = own);
  await add('account', { name: 'Marit', email: 'marit@larkmere.example', role: 'administrator' });
  await add('account', { name: 'Bo', email: 'bo@larkmere.example', role: 'viewer' });
});

const invitation = (email: string, tokenHash: string, expiresAt = '2027-02-01') =>
  accountStore.addInvitation(sql, {
    name: 'New', role: 'operator', seesValues: true, seesPasswords: false, tokenHash, email, who: person(1, 'Marit'), createdAt: '2027-01-01', expiresAt,
  }); // prettier-ignore

test('sessions that are over are ended, and all of an account but the one that asks', async () => {
  for (const [tokenHash, accountId, expiresAt] of [['a', 1, '2027-01-05'], ['b', 1, '2027-01-05'], ['c', 2, '2027-01-05'], ['over', 1, '2026-01-01']] as const)
    await add('session', { tokenHash, accountId, expiresAt, createdAt: '2026-01-01' }); // prettier-ignore
  await accountStore.endExpiredSessions(sql, '2027-01-01');
  expect((await accountStore.withSessions(sql, '2027-01-01')).map(({ name, sessions }) => [name, sessions])).toEqual([['Bo', 1], ['Marit', 2]]); // prettier-ignore
  await accountStore.endSessions(sql, 1, 'b');
  expect(await sql.query('SELECT tokenHash FROM session ORDER BY tokenHash')).toEqual([{ tokenHash: 'b' }, { tokenHash: 'c' }]);
  await accountStore.endAllSessions(sql, 1);
  expect(await sql.query('SELECT tokenHash FROM session')).toEqual([{ tokenHash: 'c' }]);
});

test('an invitation is taken once, while it holds, with what it says of the account', async () => {
  await invitation('new@larkmere.example', 'hash-one-hash-one-hash-one');
  await invitation('late@larkmere.example', 'hash-two', '2026-12-01');
  expect(await accountStore.invitation(sql, 'hash-two', '2027-01-01')).toBeUndefined();
  expect((await accountStore.openInvitations(sql, '2027-01-01')).map(({ id, email, who }) => [id, email, who])).toEqual([
    ['hash-one-hash-on', 'new@larkmere.example', 'Marit'],
  ]);
  expect(await accountStore.takeInvitation(sql, 'hash-one-hash-one-hash-one', '2027-01-01')).toMatchObject({
    role: 'operator',
    seesValues: 1,
    seesPasswords: 0,
  });
  expect(await accountStore.takeInvitation(sql, 'hash-one-hash-one-hash-one', '2027-01-01')).toBeUndefined();
  await accountStore.dropExpiredInvitations(sql, '2027-01-01');
  expect(await sql.query('SELECT 1 FROM invitation')).toEqual([]);
});

test('an invitation is taken back by the beginning of its digest, or replaced by a new one to the same address', async () => {
  await invitation('new@larkmere.example', 'aaaaaaaaaaaaaaaabbbb');
  await invitation('other@larkmere.example', 'ccccccccccccccccdddd');
  await accountStore.dropInvitation(sql, 'aaaaaaaaaaaaaaaa');
  await accountStore.dropInvitationsTo(sql, 'nobody@larkmere.example');
  expect((await accountStore.openInvitations(sql, '2027-01-01')).map(({ email }) => email)).toEqual(['other@larkmere.example']);
  await accountStore.dropInvitationsTo(sql, 'other@larkmere.example');
  expect(await accountStore.openInvitations(sql, '2027-01-01')).toEqual([]);
});

test('administrators who can sign in are counted, so that one is always left', async () => {
  expect(await accountStore.openAdministrators(sql)).toEqual({ count: 1 });
  await accountStore.setProfile(sql, 2, { name: 'Bo', role: 'administrator', seesValues: true, seesPasswords: true }, null);
  expect(await accountStore.openAdministrators(sql)).toEqual({ count: 2 });
  await accountStore.setProfile(sql, 1, { name: 'Marit', role: 'administrator', seesValues: true, seesPasswords: true }, '2027-01-01');
  expect(await accountStore.openAdministrators(sql)).toEqual({ count: 1 });
  await accountStore.setPassword(sql, 'hash', 2);
  await accountStore.seen(sql, '2027-01-02', 2);
  expect((await accountStore.withSessions(sql, '2027-01-01'))[0]).toMatchObject({
    name: 'Bo',
    passwordHash: 'hash',
    lastSeenAt: '2027-01-02',
  });
});

test('views of the ledger belong to their account, by name', async () => {
  for (const [account, name] of [[1, 'late'], [1, 'Bounced'], [2, 'mine']] as const) await savedViewStore.add(sql, account, name, '{}', '2027-01-01'); // prettier-ignore
  const mine = await savedViewStore.ofAccount(sql, 1);
  expect(mine.map(({ name }) => name)).toEqual(['Bounced', 'late']);
  // Nobody takes away what is another's.
  await savedViewStore.rename(sql, mine[0]!.id, 2, 'taken');
  await savedViewStore.dropNamed(sql, 1, 'mine');
  expect([(await savedViewStore.ofAccount(sql, 1)).length, (await savedViewStore.ofAccount(sql, 2)).length]).toEqual([2, 1]);
  expect((await savedViewStore.ofAccount(sql, 1)).map(({ name }) => name)).toEqual(['Bounced', 'late']);
  await savedViewStore.rename(sql, mine[0]!.id, 1, 'Returned');
  await savedViewStore.drop(sql, mine[1]!.id);
  expect((await savedViewStore.ofAccount(sql, 1)).map(({ name }) => name)).toEqual(['Returned']);
});
