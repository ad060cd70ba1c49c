import type { Sql } from '../persistence/sql.js';
import { changed, one, run } from '../persistence/sql.js';

/** What was last drawn on a template. Its version only ever grows. */
export interface LayoutRow {
  /** The revision on whose file it is drawn. */
  baseId: number;
  version: number;
  /** As JSON. */
  content: string;
  /** 1: nothing was drawn since it was taken into use, or discarded; what counts is the latest revision. */
  isInUse: 0 | 1;
}

export const layoutStore = {
  ofTemplate: (sql: Sql, templateId: number) =>
    one<LayoutRow>(sql, 'SELECT baseId, version, content, isInUse FROM template_layout WHERE templateId = ?', [templateId]),

  /** Keeps a new version over the one that it was made from; 0: there is to be none yet. @returns whether that was still the one */
  save: async (sql: Sql, templateId: number, from: number, { baseId, content }: Pick<LayoutRow, 'baseId' | 'content'>, at: string) =>
    (await (from === 0
      ? changed(
          sql,
          `INSERT INTO template_layout (templateId, baseId, version, content, isInUse, updatedAt) VALUES (?, ?, 1, ?, 0, ?)
           ON CONFLICT (templateId) DO NOTHING`,
          [templateId, baseId, content, at],
        )
      : changed(
          sql,
          `UPDATE template_layout SET version = version + 1, baseId = ?, content = ?, isInUse = 0, updatedAt = ?
           WHERE templateId = ? AND version = ?`,
          [baseId, content, at, templateId, from],
        ))) > 0,

  /** @param version the one that was taken into use, or is discarded: a later one stays what it is */
  settle: (sql: Sql, templateId: number, version: number) =>
    run(sql, 'UPDATE template_layout SET isInUse = 1, version = version + 1 WHERE templateId = ? AND version = ?', [templateId, version]),

  remove: (sql: Sql, templateId: number) => run(sql, 'DELETE FROM template_layout WHERE templateId = ?', [templateId]),
};
