import type { CopyEventKind, CopyNote, Trouble, Detail } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, copyLaw } from '@mailbag/core';
import type { Sql } from '../persistence/sql.js';
import { copyEventStore } from '../stores/copy-event.store.js';
import { copyStore } from '../stores/copy.store.js';
import type { Principal } from '../platform/principal.js';

/** Copies that are changed by one statement. */
const BLOCK = 200;
function* blocks(ids: readonly number[]): Generator<readonly number[]> {
  for (let first = 0; first < ids.length; first += BLOCK) yield ids.slice(first, first + BLOCK);
}

export interface Because {
  who: Principal;
  /** Why, or the server's own words. */
  detail?: Detail | null;
}

/**
 * The only way in which copies change their state: guarded by the law, with an event a copy.
 * Copies that are not in a state from which the event leads stay as they are.
 * @returns how many changed
 */
export async function changeCopies(
  sql: Sql,
  ids: readonly number[],
  event: CopyEventKind,
  { who, detail = null }: Because,
): Promise<number> {
  const { from, to } = copyLaw[event];
  const at = new Date().toISOString();
  let count = 0;
  for (const block of blocks(ids)) {
    await copyEventStore.addEvents(sql, block, from, { at, who, event, state: to, detail });
    count += await copyStore.setState(sql, block, from, to, at);
  }
  return count;
}

/** Like `changeCopies`, for one copy that must change. @throws MailbagError copy-law */
export async function changeCopy(sql: Sql, id: number, event: CopyEventKind, because: Because): Promise<void> {
  if ((await changeCopies(sql, [id], event, because)) === 1) return;
  const row = await copyStore.codeAndState(sql, id);
  if (!row) throw new MailbagError('not-found', { what: t`copy` });
  throw new MailbagError('copy-law', { copy: row.code, state: row.state, event });
}

/** Writes a line into the stories of copies; their states stay. */
export async function noteCopies(sql: Sql, ids: readonly number[], note: CopyNote, { who, detail = null }: Because): Promise<void> {
  const at = new Date().toISOString();
  for (const block of blocks(ids)) await copyEventStore.addNotes(sql, block, { at, who, event: note, detail });
}

/** Where the trouble of copies sits; null: there is none any more. */
export async function markTrouble(sql: Sql, ids: readonly number[], trouble: Trouble | null, code: string | null): Promise<void> {
  for (const block of blocks(ids)) await copyStore.setTrouble(sql, block, trouble, code);
}
