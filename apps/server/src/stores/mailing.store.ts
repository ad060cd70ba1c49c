import type { MailingSummary } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';

/** A template of a packet, with the revision that it was mapped for. */
export interface PacketItem {
  templateId: number;
  revisionId: number;
}

export const mailingStore = {
  ofSource: (sql: Sql, sourceId: number) => rows<{ id: number }>(sql, 'SELECT id FROM mailing WHERE sourceId = ?', [sourceId]),

  list: async (sql: Sql): Promise<MailingSummary[]> => {
    const found = await rows<Omit<MailingSummary, 'isArchived'> & { archivedAt: string | null }>(
      sql,
      `SELECT mailing.id, mailing.name, (SELECT COUNT(*) FROM mailing_template WHERE mailingId = mailing.id) AS templates, source.id AS sourceId, source.name AS sourceName,
         COALESCE(source.count, 0) AS records, (SELECT COUNT(*) FROM batch WHERE batch.mailingId = mailing.id) AS batches, mailing.updatedAt, mailing.archivedAt
       FROM mailing LEFT JOIN source ON source.id = mailing.sourceId WHERE mailing.deletedAt IS NULL ORDER BY mailing.updatedAt DESC`,
    );
    return found.map(({ archivedAt, ...mailing }) => ({ ...mailing, isArchived: archivedAt !== null }));
  },

  archive: (sql: Sql, id: number, at: string | null) => run(sql, 'UPDATE mailing SET archivedAt = ? WHERE id = ?', [at, id]),

  remindingBySchedule: (sql: Sql) =>
    rows<{ id: number }>(
      sql,
      `SELECT id FROM mailing WHERE archivedAt IS NULL AND deletedAt IS NULL AND ${dialect.at('plan', 'message', 'reminder', 'bySchedule')} = 1`,
    ),

  namesBySource: (sql: Sql, sourceId: number) =>
    rows<{ name: string }>(sql, 'SELECT name FROM mailing WHERE sourceId = ? AND deletedAt IS NULL ORDER BY name', [sourceId]),

  /** Takes the source away; what is said of single records goes with it. */
  disconnect: (sql: Sql, ids: readonly number[]) =>
    run(
      sql,
      `UPDATE mailing SET sourceId = NULL, plan = ${dialect.withAt('plan', 'leftOut')}, version = version + 1, checkedKey = NULL WHERE id ${dialect.inIds}`,
      ['[]', JSON.stringify(ids)],
    ),

  /** @param alsoDeleted those in the wastebasket count too */
  namesByTemplate: (sql: Sql, templateId: number, alsoDeleted = false) =>
    rows<{ name: string }>(
      sql,
      `SELECT name FROM mailing WHERE id IN (SELECT mailingId FROM mailing_template WHERE templateId = ?)${alsoDeleted ? '' : ' AND deletedAt IS NULL'} ORDER BY name`,
      [templateId],
    ),

  /** Mailings that fill a template, each with the revision that it was mapped for. */
  ofTemplate: (sql: Sql, templateId: number) =>
    rows<{ id: number; name: string; revisionId: number }>(
      sql,
      'SELECT mailing.id, mailing.name, revisionId FROM mailing_template JOIN mailing ON mailing.id = mailingId WHERE templateId = ? AND mailing.deletedAt IS NULL ORDER BY mailing.name',
      [templateId],
    ),

  /** Several threads check a mailing at once. */
  addCheckProgress: (sql: Sql, id: number, records: number) =>
    run(sql, 'UPDATE mailing SET checkProgress = checkProgress + ? WHERE id = ?', [records, id]),

  clearCheckProgress: (sql: Sql, id: number) => run(sql, 'UPDATE mailing SET checkProgress = 0 WHERE id = ?', [id]),

  version: (sql: Sql, id: number) => one<{ version: number }>(sql, 'SELECT version FROM mailing WHERE id = ?', [id]),

  /** Plans of those that read a source, as JSON. */
  /** Everything that mailings are planned to be, as JSON. */
  allPlans: (sql: Sql) => rows<{ plan: string }>(sql, 'SELECT plan FROM mailing'),

  plansOfSource: (sql: Sql, sourceId: number) =>
    rows<{ id: number; plan: string }>(sql, 'SELECT id, plan FROM mailing WHERE sourceId = ?', [sourceId]),

  /** Plans of other mailings as JSON, those that were worked on last. */
  plansBeside: (sql: Sql, id: number, count: number) =>
    rows<{ name: string; plan: string }>(
      sql,
      'SELECT name, plan FROM mailing WHERE id <> ? AND deletedAt IS NULL ORDER BY updatedAt DESC, id DESC LIMIT ?',
      [id, count],
    ),

  setPlan: (sql: Sql, id: number, plan: unknown) =>
    run(sql, 'UPDATE mailing SET plan = ?, version = version + 1 WHERE id = ?', [JSON.stringify(plan), id]),

  packet: (sql: Sql, id: number) =>
    rows<PacketItem>(sql, 'SELECT templateId, revisionId FROM mailing_template WHERE mailingId = ? ORDER BY position', [id]),

  /** @returns whether the mailing was still in that version */
  save: async (
    sql: Sql,
    id: number,
    version: number,
    mailing: { name: string; plan: unknown; sourceId: number | null; packet: readonly PacketItem[]; updatedAt: string },
  ): Promise<boolean> => {
    const isMine = await changed(
      sql,
      'UPDATE mailing SET name = ?, plan = ?, sourceId = ?, version = version + 1, updatedAt = ? WHERE id = ? AND version = ?',
      [mailing.name, JSON.stringify(mailing.plan), mailing.sourceId, mailing.updatedAt, id, version],
    );
    if (isMine === 0) return false;
    await run(sql, 'DELETE FROM mailing_template WHERE mailingId = ?', [id]);
    for (const [position, { templateId, revisionId }] of mailing.packet.entries())
      await run(sql, 'INSERT INTO mailing_template (mailingId, position, templateId, revisionId) VALUES (?, ?, ?, ?)', [
        id,
        position,
        templateId,
        revisionId,
      ]);
    return true;
  },
};
