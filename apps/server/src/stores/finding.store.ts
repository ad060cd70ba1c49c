import type { FindingGroup, FindingSort } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';
import type { Principal } from '../platform/principal.js';
import { principalKey } from '../platform/principal.js';

/** Who has accepted what, for as long as record, column, field and value are the same. */
export interface Acceptance {
  mailingId: number;
  recordKey: string;
  code: string;
  column: string;
  field: string;
  value: string;
  reason: string;
  who: Principal;
  at: string;
}

export interface WhichFindings {
  mailingId: number;
  code?: string | undefined;
  severity?: string | undefined;
  accepted?: boolean | undefined;
  /** Places of the only records whose findings are wanted. */
  among?: readonly number[] | undefined;
}
function chosen({ mailingId, code, severity, accepted, among }: WhichFindings): { where: string; values: unknown[] } {
  const onlyThese = among ? ` AND ordinal ${dialect.inIds}` : '';
  return {
    where: `mailingId = ? AND acceptanceId IS ${accepted ? 'NOT NULL' : 'NULL'}${code ? ' AND code = ?' : ''}${severity ? ' AND severity = ?' : ''}${onlyThese}`,
    values: [mailingId, ...(code ? [code] : []), ...(severity ? [severity] : []), ...(among ? [JSON.stringify(among)] : [])],
  };
}

/** What findings are ordered by, before their place among the records. */
const orders: Record<FindingSort, string | null> = {
  row: null,
  kind: 'code',
  column: dialect.caseless('columnName'),
  value: dialect.caseless(dialect.at('body', 'value')),
};
export interface FindingOrder {
  sort: FindingSort;
  isDown: boolean;
}
function ordered({ sort, isDown }: FindingOrder): string {
  const first = orders[sort];
  return [...(first === null ? [] : [first]), 'ordinal', 'id'].map((one) => `${one} ${isDown ? 'DESC' : 'ASC'}`).join(', ');
}

export interface NewFinding {
  ordinal: number;
  row: number;
  code: string;
  severity: string;
  /** As JSON. */
  body: string;
  checkName: string;
  columnName: string;
  mend: string | null;
  acceptanceId: number | null;
}

export const findingStore = {
  stopsByMailing: (sql: Sql) =>
    rows<{ id: number; name: string; count: number }>(
      sql,
      "SELECT mailing.id, mailing.name, COUNT(DISTINCT finding.ordinal) AS count FROM finding JOIN mailing ON mailing.id = finding.mailingId WHERE finding.severity = 'stop' AND mailing.archivedAt IS NULL AND mailing.deletedAt IS NULL GROUP BY mailing.id ORDER BY count DESC",
    ),

  looksAt: (sql: Sql, mailingId: number, row: number, code: string, column: string) =>
    rows<{ id: number; ordinal: number; body: string }>(
      sql,
      "SELECT id, ordinal, body FROM finding WHERE mailingId = ? AND row = ? AND code = ? AND severity = 'look' AND columnName = ?",
      [mailingId, row, code, column],
    ),

  takeBack: (sql: Sql, mailingId: number, acceptanceId: number) =>
    run(sql, 'UPDATE finding SET acceptanceId = NULL WHERE mailingId = ? AND acceptanceId = ?', [mailingId, acceptanceId]),

  /** What was accepted in one mailing is so in another. */
  copyAcceptances: (sql: Sql, from: number, to: number) =>
    run(
      sql,
      `INSERT INTO acceptance (mailingId, recordKey, code, columnName, field, value, reason, who, at)
       SELECT ?, recordKey, code, columnName, field, value, reason, who, at FROM acceptance WHERE mailingId = ?`,
      [to, from],
    ),

  dropAcceptance: (sql: Sql, mailingId: number, acceptanceId: number) =>
    run(sql, 'DELETE FROM acceptance WHERE mailingId = ? AND id = ?', [mailingId, acceptanceId]),

  groups: (sql: Sql, mailingId: number) =>
    rows<FindingGroup>(
      sql,
      `SELECT code, severity, COUNT(*) FILTER (WHERE acceptanceId IS NULL) AS findings, COUNT(DISTINCT CASE WHEN acceptanceId IS NULL THEN ordinal END) AS records,
             COUNT(*) FILTER (WHERE mend IS NOT NULL AND acceptanceId IS NULL) AS mends, COUNT(acceptanceId) AS accepted
           FROM finding WHERE mailingId = ? GROUP BY code, severity ORDER BY severity DESC, records DESC`,
      [mailingId],
    ),

  totals: (sql: Sql, mailingId: number) =>
    one<{ stopped: number; flagged: number; accepted: number }>(
      sql,
      `SELECT COUNT(DISTINCT CASE WHEN severity = 'stop' THEN ordinal END) AS stopped, COUNT(DISTINCT CASE WHEN acceptanceId IS NULL THEN ordinal END) AS flagged,
         COUNT(acceptanceId) AS accepted FROM finding WHERE mailingId = ?`,
      [mailingId],
    ),

  flagged: (sql: Sql, mailingId: number) =>
    rows<{ ordinal: number }>(
      sql,
      'SELECT DISTINCT ordinal FROM finding WHERE mailingId = ? AND acceptanceId IS NULL ORDER BY ordinal LIMIT 100000',
      [mailingId],
    ),

  /** Values that are proposed for a kind of finding. */
  mends: (sql: Sql, mailingId: number, { code, column, row }: { code: string; column?: string; row?: number }) =>
    rows<{ row: number; column: string; value: string }>(
      sql,
      `SELECT row, columnName AS "column", mend AS value FROM finding WHERE mailingId = ? AND code = ? AND mend IS NOT NULL AND acceptanceId IS NULL
       ${column === undefined ? '' : 'AND columnName = ?'} ${row === undefined ? '' : 'AND row = ?'} ORDER BY ordinal`,
      [mailingId, code, ...(column === undefined ? [] : [column]), ...(row === undefined ? [] : [row])],
    ),

  /** Accepts a finding. */
  async accept(sql: Sql, findingId: number, acceptance: Acceptance): Promise<void> {
    const { mailingId, recordKey, code, column, field, value, reason, who, at } = acceptance;
    const row = await one<{ id: number }>(
      sql,
      'INSERT INTO acceptance (mailingId, recordKey, code, columnName, field, value, reason, who, principal, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id',
      [mailingId, recordKey, code, column, field, value, reason, who.name, principalKey(who), at],
    );
    await run(sql, 'UPDATE finding SET acceptanceId = ? WHERE id = ?', [row!.id, findingId]);
  },

  count: (sql: Sql, which: WhichFindings) => {
    const { where, values } = chosen(which);
    return one<{ total: number }>(sql, `SELECT COUNT(*) AS total FROM finding WHERE ${where}`, values);
  },

  page: (sql: Sql, which: WhichFindings, order: FindingOrder, from: number, count: number) => {
    const { where, values } = chosen(which);
    const by = ordered(order);
    return rows<{ ordinal: number; body: string; acceptanceId: number | null; reason: string; who: string; at: string }>(
      sql,
      `SELECT ordinal, body, acceptanceId, reason, who, at FROM (SELECT * FROM finding WHERE ${where} ORDER BY ${by} LIMIT ? OFFSET ?) AS page
       LEFT JOIN (SELECT id AS acceptedId, reason, who, at FROM acceptance) AS accepted ON acceptedId = acceptanceId ORDER BY ${by}`,
      [...values, count, from],
    );
  },

  /** What was found and accepted in mailings, and what a run has left that never came to its end: it stands under their numbers with a minus. */
  async dropOfMailings(sql: Sql, mailingIds: readonly number[]): Promise<void> {
    for (const table of ['finding', 'acceptance'])
      await run(sql, `DELETE FROM ${table} WHERE mailingId ${dialect.inIds}`, [JSON.stringify(mailingIds.flatMap((id) => [id, -id]))]);
  },

  /** Places of records that cannot run. */
  stopped: (sql: Sql, mailingId: number) =>
    rows<{ ordinal: number }>(sql, "SELECT DISTINCT ordinal FROM finding WHERE mailingId = ? AND severity = 'stop'", [mailingId]),

  /** Places of records that a person should look at. */
  looked: (sql: Sql, mailingId: number) =>
    rows<{ ordinal: number }>(
      sql,
      "SELECT DISTINCT ordinal FROM finding WHERE mailingId = ? AND severity = 'look' AND acceptanceId IS NULL",
      [mailingId],
    ),

  acceptances: (sql: Sql, mailingId: number) =>
    rows<{ id: number; recordKey: string; code: string; columnName: string; field: string; value: string }>(
      sql,
      'SELECT id, recordKey, code, columnName, field, value FROM acceptance WHERE mailingId = ?',
      [mailingId],
    ),

  add: (sql: Sql, mailingId: number, finding: NewFinding) =>
    run(
      sql,
      'INSERT INTO finding (mailingId, ordinal, row, code, severity, body, checkName, columnName, mend, acceptanceId) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [
        mailingId,
        finding.ordinal,
        finding.row,
        finding.code,
        finding.severity,
        finding.body,
        finding.checkName,
        finding.columnName,
        finding.mend,
        finding.acceptanceId,
      ],
    ),

  /** Findings of one mailing, or of a run for it, become those of another. */
  move: (sql: Sql, from: number, to: number) => run(sql, 'UPDATE finding SET mailingId = ? WHERE mailingId = ?', [to, from]),

  dropAll: (sql: Sql, mailingId: number) => run(sql, 'DELETE FROM finding WHERE mailingId = ?', [mailingId]),

  /** What some checks have found. @param ordinal of one record; null: of all */
  dropOfChecks: (sql: Sql, mailingId: number, checks: readonly string[], ordinal: number | null) =>
    run(sql, `DELETE FROM finding WHERE mailingId = ? ${ordinal === null ? '' : 'AND ordinal = ?'} AND checkName ${dialect.inList}`, [
      mailingId,
      ...(ordinal === null ? [] : [ordinal]),
      JSON.stringify(checks),
    ]),
};
