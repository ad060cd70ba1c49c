import type { Sql } from '../persistence/sql.js';
import { rows, run } from '../persistence/sql.js';

/** What a person sets of a sender. */
export interface SenderValues {
  serverId: number;
  name: string;
  address: string;
  replyTo: string | null;
  dkimDomain: string;
  dkimSelector: string;
  dkimSealed: string;
}

export const senderStore = {
  countByServer: (sql: Sql) =>
    rows<{ serverId: number; count: number }>(
      sql,
      'SELECT serverId, COUNT(*) AS count FROM sender WHERE deletedAt IS NULL GROUP BY serverId',
    ),

  setCode: (sql: Sql, codeHash: string, until: string, id: number) =>
    run(sql, 'UPDATE sender SET codeHash = ?, codeUntil = ?, codeTries = 0 WHERE id = ?', [codeHash, until, id]),

  confirm: (sql: Sql, now: string, id: number) =>
    run(sql, 'UPDATE sender SET confirmedAt = ?, codeHash = NULL, codeUntil = NULL, codeTries = 0 WHERE id = ?', [now, id]),

  countCodeTry: (sql: Sql, id: number) => run(sql, 'UPDATE sender SET codeTries = codeTries + 1 WHERE id = ?', [id]),

  add: (sql: Sql, { serverId, name, address, replyTo, dkimDomain, dkimSelector, dkimSealed }: SenderValues, now: string) =>
    run(
      sql,
      'INSERT INTO sender (serverId, name, address, replyTo, dkimDomain, dkimSelector, dkimSealed, createdAt) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [serverId, name, address, replyTo, dkimDomain, dkimSelector, dkimSealed, now],
    ),

  /** @param keepsConfirmation whether it is still the sender that was confirmed */
  set: (
    sql: Sql,
    id: number,
    { serverId, name, address, replyTo, dkimDomain, dkimSelector, dkimSealed }: SenderValues,
    keepsConfirmation: boolean,
  ) =>
    run(
      sql,
      `UPDATE sender SET serverId = ?, name = ?, address = ?, replyTo = ?, dkimDomain = ?, dkimSelector = ?, dkimSealed = ?${keepsConfirmation ? '' : ', confirmedAt = NULL, codeHash = NULL, codeUntil = NULL'} WHERE id = ?`,
      [serverId, name, address, replyTo, dkimDomain, dkimSelector, dkimSealed, id],
    ),
};
