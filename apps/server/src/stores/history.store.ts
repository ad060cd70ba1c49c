import type { HistoryLine } from '@mailbag/contract';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';
import type { Principal } from '../platform/principal.js';
import { principalKey } from '../platform/principal.js';

export const historyStore = {
  page: (sql: Sql, before: number, like: string) =>
    rows<HistoryLine>(
      sql,
      "SELECT id, at, who, action, subject, detail FROM history WHERE id < ? AND (who || ' ' || action || ' ' || subject || ' ' || COALESCE(detail, '')) LIKE ? ESCAPE '\\' ORDER BY id DESC LIMIT 100",
      [before, like],
    ),

  add: (sql: Sql, at: string, who: Principal, action: string, subject: string, detail: string | null) =>
    run(sql, 'INSERT INTO history (at, principal, who, action, subject, detail) VALUES (?, ?, ?, ?, ?, ?)', [
      at,
      principalKey(who),
      who.name,
      action,
      subject,
      detail,
    ]),

  lastSince: (sql: Sql, since: string, who: Principal, action: string, subject: string) =>
    one<{ id: number; detail: string | null }>(
      sql,
      `SELECT id, detail FROM history WHERE at > ? AND principal = ? AND who = ? AND action = ? AND subject = ? ORDER BY id DESC LIMIT 1`,
      [since, principalKey(who), who.name, action, subject],
    ),

  setDetail: (sql: Sql, detail: string, id: number) => run(sql, 'UPDATE history SET detail = ? WHERE id = ?', [detail, id]),
};
