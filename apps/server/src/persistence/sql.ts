/**
 * A connection to the database as stores see it: of the server, within a transaction or not, or of a thread. SQL has `?` for parameters; a list is one
 * parameter, as JSON.
 */
export interface Sql {
  query<Row>(text: string, values?: readonly unknown[]): Promise<Row[]>;
}

/** A change that is handed over to be made by itself. */
export interface Statement {
  text: string;
  values: readonly unknown[];
}

/** What a question finds. */
export const rows = <Row>(sql: Sql, text: string, values: readonly unknown[] = []): Promise<Row[]> => sql.query<Row>(text, values);

/** The first that a question finds; undefined: nothing. */
export const one = async <Row>(sql: Sql, text: string, values: readonly unknown[] = []): Promise<Row | undefined> =>
  (await sql.query<Row>(text, values))[0];

/** Changes something. */
export async function run(sql: Sql, text: string, values: readonly unknown[] = []): Promise<void> {
  await sql.query(text, values);
}

/** Changes something, and tells how many rows it changed, so that a guarded change can see whether it won. */
export const changed = async (sql: Sql, text: string, values: readonly unknown[] = []): Promise<number> =>
  (await sql.query(`${text} RETURNING 1`, values)).length;
