import { workerDatabase } from './worker-database.js';

/** Names of fields that are asked for at most; a sheet is recognised by a few of them. */
const MOST = 20_000;

/** Names of the fields of all templates that are there, which tell columns of names in sheets. */
export function knownFields(): string[] {
  const rows = workerDatabase()
    .prepare(
      "SELECT DISTINCT json_extract(field.value, '$.name') AS name FROM template_revision, json_each(template_revision.fields) AS field LIMIT ?",
    )
    .all([MOST]) as { name: string }[];
  return rows.map(({ name }) => name);
}
