import type { Sql } from '../persistence/sql.js';
import { rows } from '../persistence/sql.js';

export const templateStore = {
  /** Names of the fields of all templates. */
  fieldNames: (sql: Sql, most: number) =>
    rows<{ name: string }>(
      sql,
      "SELECT DISTINCT json_extract(field.value, '$.name') AS name FROM template_revision, json_each(template_revision.fields) AS field LIMIT ?",
      [most],
    ),
};
