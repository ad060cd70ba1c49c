import type { CopyEventKind, CopyNote, CopyState, Trouble } from '@mailbag/core';
import { MailbagError, copyLaw } from '@mailbag/core';
import type { EntityManager } from 'typeorm';
import { changed } from '../persistence/transactions.js';

const BLOCK = 200;
const marks = (values: readonly unknown[]): string => values.map(() => '?').join(',');

export interface Because {
  who: string;
  /** Why, or the server's own words. */
  said?: string | null;
}

/**
 * The only way in which copies change their state: guarded by the law, with an event a copy.
 * Copies that are not in a state from which the event leads stay as they are.
 * @returns how many changed
 */
export async function changeCopies(
  manager: EntityManager,
  ids: readonly number[],
  event: CopyEventKind,
  { who, said = null }: Because,
): Promise<number> {
  const { from, to } = copyLaw[event];
  const at = new Date().toISOString();
  let count = 0;
  for (let first = 0; first < ids.length; first += BLOCK) {
    const block = ids.slice(first, first + BLOCK);
    await manager.query(
      `INSERT INTO copy_event (copyId, at, who, event, state, said) SELECT id, ?, ?, ?, ?, ? FROM copy WHERE id IN (${marks(block)}) AND state IN (${marks(from)})`,
      [at, who, event, to, said, ...block, ...from],
    );
    count += await changed(manager, `UPDATE copy SET state = ?, since = ? WHERE id IN (${marks(block)}) AND state IN (${marks(from)})`, [
      to,
      at,
      ...block,
      ...from,
    ]);
  }
  return count;
}

/** Like `changeCopies`, for one copy that must change. @throws MailbagError copy-law */
export async function changeCopy(manager: EntityManager, id: number, event: CopyEventKind, because: Because): Promise<void> {
  if ((await changeCopies(manager, [id], event, because)) === 1) return;
  const [row] = (await manager.query('SELECT code, state FROM copy WHERE id = ?', [id])) as { code: string; state: CopyState }[];
  if (!row) throw new MailbagError('not-found', { what: 'copy' });
  throw new MailbagError('copy-law', { copy: row.code, state: row.state, event });
}

/** Writes a line into the stories of copies; their states stay. */
export async function noteCopies(
  manager: EntityManager,
  ids: readonly number[],
  note: CopyNote,
  { who, said = null }: Because,
): Promise<void> {
  const at = new Date().toISOString();
  for (let first = 0; first < ids.length; first += BLOCK) {
    const block = ids.slice(first, first + BLOCK);
    await manager.query(
      `INSERT INTO copy_event (copyId, at, who, event, state, said) SELECT id, ?, ?, ?, state, ? FROM copy WHERE id IN (${marks(block)})`,
      [at, who, note, said, ...block],
    );
  }
}

/** Where the trouble of copies sits; null: there is none any more. */
export async function markTrouble(
  manager: EntityManager,
  ids: readonly number[],
  trouble: Trouble | null,
  code: string | null,
): Promise<void> {
  for (let first = 0; first < ids.length; first += BLOCK) {
    const block = ids.slice(first, first + BLOCK);
    await manager.query(
      `UPDATE copy SET trouble = ?, troubleCode = ? WHERE id IN (${marks(block)}) AND (trouble IS NOT ? OR troubleCode IS NOT ?)`,
      [trouble, code, ...block, trouble, code],
    );
  }
}
