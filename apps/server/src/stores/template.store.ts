import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { rows, run } from '../persistence/sql.js';

/** A template with its latest revision, without its pages and fields. */
export interface TemplateRow {
  id: number;
  name: string;
  createdAt: string;
  archivedAt: string | null;
  revisionId: number;
  revision: number;
  fileName: string;
  size: number;
  /** As JSON. */
  notes: string;
  pages: number;
  fields: number;
}

const counted = (column: string): string => `(SELECT COUNT(*) FROM ${dialect.each(`latest.${column}`, 'item')})`;

export const templateStore = {
  /** Names of the fields of all templates. */
  fieldNames: (sql: Sql, limit: number) =>
    rows<{ name: string }>(
      sql,
      `SELECT DISTINCT ${dialect.at('field.value', 'name')} AS name FROM template_revision, ${dialect.each('template_revision.fields', 'field')} LIMIT ?`,
      [limit],
    ),

  /** All templates, or one, the newest first. Fields of thousands are counted where they are. */
  summaries: (sql: Sql, id: number | null = null) =>
    rows<TemplateRow>(
      sql,
      `SELECT template.id, template.name, latest.createdAt, template.archivedAt, latest.id AS revisionId, latest.number AS revision, latest.fileName,
         latest.size, latest.notes, ${counted('pages')} AS pages, ${counted('fields')} AS fields
       FROM template JOIN template_revision latest ON latest.templateId = template.id
         AND latest.number = (SELECT MAX(number) FROM template_revision WHERE templateId = template.id)
       WHERE ${id === null ? 'template.deletedAt IS NULL' : 'template.id = ?'} ORDER BY template.id DESC`,
      id === null ? [] : [id],
    ),

  /** @param at null: it is taken back */
  archive: (sql: Sql, id: number, at: string | null) => run(sql, 'UPDATE template SET archivedAt = ? WHERE id = ?', [at, id]),

  /** Names of the mailings that fill templates, by template; those in the wastebasket are left out. */
  uses: (sql: Sql) =>
    rows<{ templateId: number; name: string }>(
      sql,
      'SELECT templateId, mailing.name FROM mailing_template JOIN mailing ON mailing.id = mailingId WHERE mailing.deletedAt IS NULL ORDER BY mailing.name',
    ),
};
