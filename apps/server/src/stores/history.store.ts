import type { HistoryLine } from '@mailbag/contract';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';

export const historyStore = {
  page: (sql: Sql, before: number, like: string) =>
    rows<HistoryLine>(
      sql,
      "SELECT id, at, who, action, subject, detail FROM history WHERE id < ? AND (who || ' ' || action || ' ' || subject || ' ' || COALESCE(detail, '')) LIKE ? ESCAPE '\\' ORDER BY id DESC LIMIT 100",
      [before, like],
    ),

  add: (sql: Sql, at: string, accountId: number | null, who: string, action: string, subject: string, detail: string | null) =>
    run(sql, 'INSERT INTO history (at, accountId, who, action, subject, detail) VALUES (?, ?, ?, ?, ?, ?)', [
      at,
      accountId,
      who,
      action,
      subject,
      detail,
    ]),

  lastSince: (sql: Sql, since: string, accountId: number | null, who: string, action: string, subject: string) =>
    one<{ id: number; detail: string | null }>(
      sql,
      `SELECT id, detail FROM history WHERE at > ? AND accountId IS NOT DISTINCT FROM ? AND who = ? AND action = ? AND subject = ? ORDER BY id DESC LIMIT 1`,
      [since, accountId, who, action, subject],
    ),

  setDetail: (sql: Sql, detail: string, id: number) => run(sql, 'UPDATE history SET detail = ? WHERE id = ?', [detail, id]),
};
