import type { MailingSummary } from '@mailbag/contract';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';

export const mailingStore = {
  ofSource: (sql: Sql, sourceId: number) =>
    rows<{ id: number }>(sql, "SELECT id FROM mailing WHERE json_extract(plan, '$.sourceId') = ?", [sourceId]),

  list: (sql: Sql) =>
    rows<MailingSummary>(
      sql,
      `SELECT mailing.id, mailing.name, json_array_length(mailing.plan, '$.packet') AS templates, source.id AS sourceId, source.name AS sourceName,
         COALESCE(source.count, 0) AS records, (SELECT COUNT(*) FROM batch WHERE batch.mailingId = mailing.id) AS batches, mailing.updatedAt
       FROM mailing LEFT JOIN source ON source.id = json_extract(mailing.plan, '$.sourceId') ORDER BY mailing.updatedAt DESC`,
    ),

  remindingBySchedule: (sql: Sql) =>
    rows<{ id: number }>(sql, "SELECT id FROM mailing WHERE json_extract(plan, '$.message.reminder.bySchedule') = 1"),

  namesBySource: (sql: Sql, sourceId: number) =>
    rows<{ name: string }>(sql, "SELECT name FROM mailing WHERE json_extract(plan, '$.sourceId') = ? ORDER BY name", [sourceId]),

  disconnect: (sql: Sql, ids: readonly number[]) =>
    run(
      sql,
      "UPDATE mailing SET plan = json_set(plan, '$.sourceId', NULL, '$.leftOut', json('[]')), version = version + 1, checkedKey = NULL WHERE id IN (SELECT value FROM json_each(?))",
      [JSON.stringify(ids)],
    ),

  namesByTemplate: (sql: Sql, templateId: number) =>
    rows<{ name: string }>(
      sql,
      "SELECT name FROM mailing WHERE EXISTS (SELECT 1 FROM json_each(mailing.plan, '$.packet') WHERE value = ?) ORDER BY name",
      [templateId],
    ),

  /** Those whose output keeps a password in clear, as earlier versions did. @param names of the passwords @returns `output` as JSON */
  withClearPasswords: (sql: Sql, names: readonly string[]) =>
    rows<{ id: number; output: string }>(
      sql,
      `SELECT id, json_extract(plan, '$.output') AS output FROM mailing WHERE EXISTS
         (SELECT 1 FROM json_each(plan, '$.output') AS kept WHERE kept.key IN (SELECT value FROM json_each(?)) AND kept.value <> '' AND kept.value NOT LIKE 'sealed:%')`,
      [JSON.stringify(names)],
    ),

  setOutput: (sql: Sql, id: number, output: unknown) =>
    run(sql, "UPDATE mailing SET plan = json_set(plan, '$.output', json(?)) WHERE id = ?", [JSON.stringify(output), id]),

  setCheckProgress: (sql: Sql, id: number, records: number) => run(sql, 'UPDATE mailing SET checkProgress = ? WHERE id = ?', [records, id]),

  version: (sql: Sql, id: number) => one<{ version: number }>(sql, 'SELECT version FROM mailing WHERE id = ?', [id]),

  /** Plans of those that read a source, as JSON. */
  plansOfSource: (sql: Sql, sourceId: number) =>
    rows<{ id: number; plan: string }>(sql, "SELECT id, plan FROM mailing WHERE json_extract(plan, '$.sourceId') = ?", [sourceId]),

  setPlan: (sql: Sql, id: number, plan: unknown) =>
    run(sql, 'UPDATE mailing SET plan = ?, version = version + 1 WHERE id = ?', [JSON.stringify(plan), id]),
};
