import type { WastebasketKind, WastebasketLine } from '@mailbag/contract';
import type { Sql } from '../persistence/sql.js';
import { rows, run } from '../persistence/sql.js';

/** What an intake is made of goes and comes with it, and is not told by itself. */
const OF_INTAKE = { mailing: 'SELECT mailingId FROM intake', source: 'SELECT sourceId FROM intake' } as const;
const PARTS = [
  `SELECT 'template' AS kind, id, name, deletedAt, deletedBy FROM template WHERE deletedAt IS NOT NULL`,
  `SELECT 'source' AS kind, id, name, deletedAt, deletedBy FROM source WHERE deletedAt IS NOT NULL AND id NOT IN (${OF_INTAKE.source})`,
  `SELECT 'mailing' AS kind, id, name, deletedAt, deletedBy FROM mailing WHERE deletedAt IS NOT NULL AND id NOT IN (${OF_INTAKE.mailing})`,
  `SELECT 'intake' AS kind, intake.id, mailing.name, intake.deletedAt, intake.deletedBy FROM intake JOIN mailing ON mailing.id = intake.mailingId
   WHERE intake.deletedAt IS NOT NULL`,
];
/** Statements that set the two columns of a thing, and of what it is made of. */
const SETS: Record<WastebasketKind, readonly string[]> = {
  template: ['UPDATE template SET deletedAt = ?, deletedBy = ? WHERE id = ?'],
  source: ['UPDATE source SET deletedAt = ?, deletedBy = ? WHERE id = ?'],
  mailing: ['UPDATE mailing SET deletedAt = ?, deletedBy = ? WHERE id = ?'],
  intake: [
    'UPDATE intake SET deletedAt = ?, deletedBy = ? WHERE id = ?',
    `UPDATE mailing SET deletedAt = ?, deletedBy = ? WHERE id IN (${OF_INTAKE.mailing} WHERE id = ?)`,
    `UPDATE source SET deletedAt = ?, deletedBy = ? WHERE id IN (${OF_INTAKE.source} WHERE id = ?)`,
  ],
};

async function set(sql: Sql, kind: WastebasketKind, id: number, at: string | null, by: string | null): Promise<void> {
  for (const text of SETS[kind]) await run(sql, text, [at, by, id]);
}

export const wastebasketStore = {
  /** What lies in it, what came last first. */
  list: (sql: Sql) =>
    rows<Omit<WastebasketLine, 'goesAt'>>(sql, `SELECT * FROM (${PARTS.join(' UNION ALL ')}) ORDER BY deletedAt DESC, id DESC`),

  put: (sql: Sql, kind: WastebasketKind, id: number, at: string, by: string) => set(sql, kind, id, at, by),

  /** A mailing comes back with the templates and the source that it needs. */
  putBack: async (sql: Sql, kind: WastebasketKind, id: number): Promise<void> => {
    await set(sql, kind, id, null, null);
    const mailing = kind === 'intake' ? '(SELECT mailingId FROM intake WHERE id = ?)' : '?';
    if (kind === 'template' || kind === 'source') return;
    // What was changed meanwhile was not checked in it.
    await run(sql, `UPDATE mailing SET checkedKey = NULL WHERE id = ${mailing}`, [id]);
    await run(
      sql,
      `UPDATE template SET deletedAt = NULL, deletedBy = NULL WHERE id IN (SELECT templateId FROM mailing_template WHERE mailingId = ${mailing})`,
      [id],
    );
    await run(sql, `UPDATE source SET deletedAt = NULL, deletedBy = NULL WHERE id = (SELECT sourceId FROM mailing WHERE id = ${mailing})`, [
      id,
    ]);
  },
};
