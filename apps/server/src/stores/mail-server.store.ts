import { storedDetail } from '@mailbag/core';
import type { Detail } from '@mailbag/core';
import type { Sql } from '../persistence/sql.js';
import { one, run } from '../persistence/sql.js';

const COLUMNS = [
  'name',
  'host',
  'port',
  'security',
  'checkCertificate',
  'user',
  'sealed',
  'perMinute',
  'perHour',
  'perDomainMinute',
  'connections',
  'limitMb',
] as const;
/** What a person sets of a mail server. `hours`: as JSON. */
export type MailServerValues = Record<(typeof COLUMNS)[number], string | number | null> & { hours: string | null };

export const mailServerStore = {
  restCount: (sql: Sql, id: number) => one<{ restCount: number }>(sql, 'SELECT restCount FROM mail_server WHERE id = ?', [id]),

  rest: (sql: Sql, until: string, detail: Detail, count: number, id: number) =>
    run(sql, 'UPDATE mail_server SET restUntil = ?, restDetail = ?, restCount = ? WHERE id = ?', [until, storedDetail(detail), count, id]),

  bringRestBack: (sql: Sql, now: string, latest: string) =>
    run(sql, 'UPDATE mail_server SET restUntil = ? WHERE restUntil > ? AND restCount < 3', [now, latest]),

  endRest: (sql: Sql, id: number) =>
    run(sql, 'UPDATE mail_server SET restUntil = NULL, restDetail = NULL, restCount = 0 WHERE id = ?', [id]),

  add: (sql: Sql, values: MailServerValues, now: string) =>
    run(sql, `INSERT INTO mail_server (${COLUMNS.join(', ')}, hours, createdAt) VALUES (${COLUMNS.map(() => '?').join(', ')}, ?, ?)`, [
      ...COLUMNS.map((column) => values[column]),
      values.hours,
      now,
    ]),

  /** A server that was changed does not rest any more. */
  set: (sql: Sql, id: number, values: MailServerValues) =>
    run(
      sql,
      `UPDATE mail_server SET ${COLUMNS.map((column) => `${column} = ?`).join(', ')}, hours = ?, restUntil = NULL, restDetail = NULL, restCount = 0 WHERE id = ?`,
      [...COLUMNS.map((column) => values[column]), values.hours, id],
    ),
};
