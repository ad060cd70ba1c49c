import Database from 'libsql';
import type { DatabaseTable } from '@mailbag/contract';
import type { PreparedQuery } from './query.js';
import type { DatabaseRow } from './reader.js';

export interface SqliteWork {
  path: string;
  /** Null: the tables are asked for. */
  query: PreparedQuery | null;
  rows: number;
  block: number;
}
export type SqliteNews =
  | { tables: DatabaseTable[] }
  | { names: string[] }
  | { rows: DatabaseRow[] }
  | { isWhole: boolean }
  | { failed: { code: string; message: string } };

const tell = (news: SqliteNews): void => void process.send!(news);
const textOf = (value: unknown): string | null =>
  value === null || value === undefined ? null : value instanceof Uint8Array ? '(binary)' : String(value as string | number | bigint);

function answer({ path, query, rows: most, block }: SqliteWork): void {
  try {
    const database = new Database(path, { readonly: true, fileMustExist: true });
    if (!query) {
      const names = database
        .prepare("SELECT name FROM sqlite_master WHERE type IN ('table', 'view') AND name NOT LIKE 'sqlite_%' ORDER BY name")
        .all([]) as { name: string }[];
      tell({
        tables: names.map(({ name }) => ({
          schema: null,
          name,
          columns: (database.prepare('SELECT name, type FROM pragma_table_info(?)').all([name]) as { name: string; type: string }[]).map(
            (column) => ({ name: column.name, type: column.type }),
          ),
        })),
      });
    } else {
      const statement = database.prepare(query.sql);
      statement.safeIntegers(true);
      tell({ names: statement.columns().map(({ name }) => name) });
      let count = 0;
      let isWhole = true;
      let pending: DatabaseRow[] = [];
      for (const row of statement.raw(true).iterate(query.values) as Iterable<unknown[]>) {
        if (++count > most) {
          isWhole = false;
          break;
        }
        pending.push(Array.from(row, textOf));
        if (pending.length >= block) {
          tell({ rows: pending });
          pending = [];
        }
      }
      if (pending.length > 0) tell({ rows: pending });
      tell({ isWhole });
    }
  } catch (error) {
    const { code = '', message = String(error) } = error as { code?: string; message?: string };
    tell({ failed: { code, message } });
  }
}

/** The driver answers only when a query is done, so that whoever asks must be able to end the whole process. */
process.once('message', (work: SqliteWork) => answer(work));
process.once('disconnect', () => process.exit());
