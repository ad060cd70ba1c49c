import type { Sql } from '../apps/server/src/persistence/sql.js';

interface ColumnInfo {
  name: string;
  type: string;
  notnull: number;
  dflt_value: string | null;
  pk: number;
}

export type RowAdder = (table: string, values?: Record<string, string | number | null>) => Promise<number>;

/**
 * Puts rows into tables of a database under test. Columns that must have a value and are not named get an empty one: 0, an empty text, or empty JSON where
 * it is kept as such.
 * @returns the id of the row; 0: the table has none
 */
export const rowAdder =
  (sql: Sql): RowAdder =>
  async (table, values = {}) => {
    const columns = await sql.query<ColumnInfo>('SELECT name, type, "notnull", dflt_value, pk FROM pragma_table_info(?)', [table]);
    const unknown = Object.keys(values).filter((name) => !columns.some((column) => column.name === name));
    if (unknown.length > 0) throw new Error(`${table} has no ${unknown.join(', ')}`);
    const row: Record<string, string | number | null> = {};
    for (const { name, type, notnull, dflt_value: fallback, pk } of columns)
      if (name in values) row[name] = values[name]!;
      else if (notnull === 1 && fallback === null && pk === 0) row[name] = /int/i.test(type) ? 0 : '';
    const names = Object.keys(row);
    const [added] = await sql.query<{ id?: number }>(
      `INSERT INTO ${table} (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map(() => '?').join(', ')}) RETURNING *`,
      Object.values(row),
    );
    return added?.id ?? 0;
  };
