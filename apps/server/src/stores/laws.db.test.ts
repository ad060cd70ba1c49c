import { batchLaw, batchStates, deliveryLaw, deliveryStates, leads, printRunLaw, printRunStates } from '@mailbag/core';
import type { Law } from '@mailbag/core';
import { ownTables } from '../../../../testing/own-tables.js';
import type { Sql } from '../persistence/sql.js';
import { batchStore } from './batch.store.js';
import { deliveryStore } from './delivery.store.js';
import { printRunStore } from './print-run.store.js';

let sql: Sql;
ownTables('all', (own) => void ({ sql } = own));

const NOW = '2027-01-01T08:00:00Z';
const inserts: Record<string, (state: string) => Promise<unknown>> = {
  delivery: (state) =>
    sql.query(
      `INSERT INTO delivery (id, batchId, recordOrdinal, address, messageId, state, held, attempts, nextTryAt, createdAt, updatedAt, serverId, token, domain, claim) VALUES (1, 1, 0, 'a@example.org', '1', ?, 0, 0, ?, ?, ?, 1, 't', 'example.org', ?)`,
      [state, NOW, NOW, NOW, state === 'sending' ? 'mine' : null],
    ),
  batch: (state) =>
    sql.query(
      `INSERT INTO batch (id, number, mailingId, mailingName, state, resumeTo, frozen, characters, records, plannedThrough, copies, mailed, startedAt, today) VALUES (1, 1, 1, 'Permits', ?, ?, '{}', '', 0, 0, 0, 1, ?, '2027-01-01')`,
      [state, state === 'paused' ? 'making' : null, NOW],
    ),
  print_run: (state) =>
    sql.query(
      `INSERT INTO print_run (id, number, name, state, options, copies, recipients, sheets, pages, size, who, createdAt, updatedAt) VALUES (1, 1, 'Run', ?, '{}', 0, 0, 0, 0, 0, 'Marit', ?, ?)`,
      [state, NOW, NOW],
    ),
};

/** Does something to a row in each of its states, and tells where it led. */
async function whereItLeads(table: string, states: readonly string[], act: () => Promise<unknown>): Promise<[from: string, to: string][]> {
  const found: [string, string][] = [];
  for (const from of states) {
    await sql.query(`DELETE FROM ${table}`);
    await inserts[table]!(from);
    await act();
    const [row] = await sql.query<{ state: string }>(`SELECT state FROM ${table}`);
    if (row!.state !== from) found.push([from, row!.state]);
  }
  return found;
}

const expectLawful = (law: Law<string>, name: string, moves: readonly [string, string][]): void => {
  for (const [from, to] of moves)
    if (!leads(law, from, to)) throw new Error(`${name} leads from ${from} to ${to}, which the law does not know.`);
};

/** A person's acts are let through by the service only in states from which they lead; the others are guarded by the statements themselves. */
test('whatever is asked of a delivery in whatever state, it goes only where the law leads', async () => {
  const acts: Record<string, () => Promise<unknown>> = {
    claim: () => deliveryStore.claim(sql, 1, 'mine', NOW, NOW),
    withdraw: () => deliveryStore.withdraw(sql, 1),
    cancel: () => deliveryStore.cancel(sql, 1, NOW),
    hold: () => deliveryStore.hold(sql, 1, true),
    bounce: () => deliveryStore.bounce(sql, 'no', NOW, 1),
    settleSent: () => deliveryStore.settleSent(sql, NOW, NOW, 1),
  };
  for (const state of ['sent', 'retrying', 'queued', 'bounced', 'unconfirmed', 'stopped', 'withdrawn'] as const)
    acts[`endClaim ${state}`] = () => deliveryStore.endClaim(sql, { id: 1, claim: 'mine' }, { state, detail: '' });
  let moved = 0;
  for (const [name, act] of Object.entries(acts)) {
    const moves = await whereItLeads('delivery', deliveryStates, act);
    moved += moves.length;
    expectLawful(deliveryLaw, name, moves);
  }
  expect(moved).toBeGreaterThan(10);
});

test('a batch goes from step to step only where the law leads', async () => {
  for (const [name, act] of Object.entries({
    planned: () => batchStore.move(sql, 'making', null, 1, 'planning'),
    made: () => batchStore.move(sql, 'sending', null, 1, 'making'),
    done: () => batchStore.move(sql, 'done', NOW, 1, 'sending'),
    pauseFor: () => batchStore.pauseFor(sql, {}, 1),
    say: () => batchStore.say(sql, null, 1),
  }))
    expectLawful(batchLaw, name, await whereItLeads('batch', batchStates, act));
  // What a person asks for is let through by the service from these states.
  for (const [event, act] of [
    ['pause', () => batchStore.pause(sql, 1)],
    ['resume', () => batchStore.resume(sql, 1)],
    ['cancel', () => batchStore.cancel(sql, NOW, 1)],
  ] as const) {
    const moves = await whereItLeads('batch', batchLaw[event]!.from, act);
    expect(moves.length).toBe(batchLaw[event]!.from.length);
    expectLawful(batchLaw, event, moves);
  }
});

test('a print run goes only where the law leads, and from one state at a time', async () => {
  for (const [name, act] of Object.entries({
    ready: () => printRunStore.ready(sql, 1, 1, 1, NOW, 1),
    printed: () => printRunStore.printed(sql, null, NOW, 1, 'printing'),
    say: () => printRunStore.say(sql, 'no paper', 1),
    refused: () => printRunStore.move(sql, 'ready', null, NOW, 1, 'sending'),
  }))
    expectLawful(printRunLaw, name, await whereItLeads('print_run', printRunStates, act));
});
