import type { IncomingReport } from '@mailbag/contract';
import { storedDetail, parseDetail } from '@mailbag/core';
import type { Detail } from '@mailbag/core';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';
import { withRemarks } from './stored-remarks.js';

export const reportStore = {
  /** What came in, doubtful ones first. */
  latest: async (sql: Sql): Promise<IncomingReport[]> => {
    const found = await withRemarks<Omit<IncomingReport, 'doubt'> & { doubt: string | null }>(
      rows(
        sql,
        `SELECT id, at, way, kind, sender, subject, detail, doubt, settled, (SELECT id FROM copy WHERE copy.deliveryId = incoming_report.deliveryId LIMIT 1) AS copyId
       FROM incoming_report ORDER BY doubt IS NOT NULL AND settled IS NULL DESC, id DESC LIMIT 100`,
      ),
    );
    return found.map((report) => ({ ...report, doubt: parseDetail(report.doubt) }));
  },

  dropTry: (sql: Sql, digest: string) => run(sql, 'DELETE FROM incoming_try WHERE digest = ?', [digest]),

  countTry: (sql: Sql, digest: string, at: string) =>
    one<{ tries: number }>(
      sql,
      'INSERT INTO incoming_try (digest, at, tries) VALUES (?, ?, 1) ON CONFLICT DO UPDATE SET tries = tries + 1 RETURNING tries',
      [digest, at],
    ),

  doubtful: (sql: Sql, id: number) =>
    one<{ deliveryId: number; subject: string; facts: string }>(
      sql,
      'SELECT deliveryId, subject, facts FROM incoming_report WHERE id = ? AND doubt IS NOT NULL AND settled IS NULL',
      [id],
    ),

  settle: (sql: Sql, settled: string, id: number) => run(sql, 'UPDATE incoming_report SET settled = ? WHERE id = ?', [settled, id]),

  doubts: (sql: Sql) =>
    one<{ count: number }>(sql, 'SELECT COUNT(*) AS count FROM incoming_report WHERE doubt IS NOT NULL AND settled IS NULL'),

  dropOfBatch: (sql: Sql, batchId: number) =>
    run(sql, 'DELETE FROM incoming_report WHERE deliveryId IN (SELECT id FROM delivery WHERE batchId = ?)', [batchId]),

  dropBefore: (sql: Sql, before: string) =>
    run(sql, 'DELETE FROM incoming_report WHERE at < ? AND (doubt IS NULL OR settled IS NOT NULL)', [before]),

  dropTriesBefore: (sql: Sql, before: string) => run(sql, 'DELETE FROM incoming_try WHERE at < ?', [before]),

  /** @returns whether it was not there yet */
  add: async (
    sql: Sql,
    report: {
      digest: string;
      at: string;
      way: string;
      kind: string;
      sender: string;
      subject: string;
      detail: Detail | null;
      deliveryId: number | null;
      doubt: Detail | null;
      /** As JSON. */
      facts: string | null;
    },
  ) =>
    (await changed(
      sql,
      'INSERT INTO incoming_report (digest, at, way, kind, sender, subject, detail, deliveryId, doubt, facts) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING',
      [
        report.digest,
        report.at,
        report.way,
        report.kind,
        report.sender,
        report.subject,
        storedDetail(report.detail),
        report.deliveryId,
        storedDetail(report.doubt),
        report.facts,
      ],
    )) === 1,
};
