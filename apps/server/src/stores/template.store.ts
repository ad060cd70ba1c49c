import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { rows } from '../persistence/sql.js';

export const templateStore = {
  /** Names of the fields of all templates. */
  fieldNames: (sql: Sql, most: number) =>
    rows<{ name: string }>(
      sql,
      `SELECT DISTINCT ${dialect.at('field.value', 'name')} AS name FROM template_revision, ${dialect.each('template_revision.fields', 'field')} LIMIT ?`,
      [most],
    ),
};
