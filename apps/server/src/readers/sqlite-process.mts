import type { Database, Sqlite3Static } from '@sqlite.org/sqlite-wasm';
import type { DatabaseTable } from '@mailbag/contract';
import type { PreparedQuery } from './query.js';
import type { DatabaseRow } from './reader.js';
import { oneFileVfs } from './sqlite-file.mjs';
import { onlyReads } from './sqlite-rights.mjs';

export interface SqliteWork {
  /** Null: the tables are asked for. */
  query: PreparedQuery | null;
  rows: number;
  block: number;
}
export type SqliteNews =
  /** The engine is there, and the question begins. */
  | { isReady: true }
  | { tables: DatabaseTable[] }
  | { names: string[] }
  | { rows: DatabaseRow[] }
  | { isWhole: boolean }
  | { failed: { code: string; message: string } };

/** Bytes that the engine may take, whatever a query asks for. */
const MOST_MEMORY = 96 * 1024 * 1024;
/** Descriptor under which whoever starts this process hands the file over. */
const FILE = 4;

const tell = (news: SqliteNews): void => void process.send!(news);

function open(sqlite3: Sqlite3Static): { database: Database; refused: () => string } {
  const { capi } = sqlite3;
  const { vfs } = oneFileVfs(sqlite3, FILE);
  const database = new sqlite3.oo1.DB({ filename: 'file:/database?immutable=1', flags: 'r', vfs });
  database.exec(`PRAGMA hard_heap_limit = ${MOST_MEMORY}`);
  for (const [option, isOn] of [
    // A file from elsewhere may have been made to do harm (SQLite, “Defense Against The Dark Arts”).
    [capi.SQLITE_DBCONFIG_DEFENSIVE, 1],
    [capi.SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0],
    // Older files hold views with texts in double quotes.
    [capi.SQLITE_DBCONFIG_DQS_DML, 1],
    [capi.SQLITE_DBCONFIG_DQS_DDL, 1],
  ] as const)
    (capi.sqlite3_db_config as (...all: unknown[]) => number)(database.pointer, option, isOn, 0);
  return { database, refused: onlyReads(sqlite3, database.pointer as never) };
}

function tablesOf(database: Database): DatabaseTable[] {
  const names = database.selectValues(
    "SELECT name FROM sqlite_master WHERE type IN ('table', 'view') AND name NOT LIKE 'sqlite_%' ORDER BY name",
  ) as string[];
  const columnsOf = (name: string): DatabaseTable['columns'] => {
    try {
      const columns = database.selectArrays('SELECT name, type FROM pragma_table_info(?)', [name]) as [string, string][];
      return columns.map(([column, type]) => ({ name: column, type }));
    } catch {
      // A view that this engine does not understand is named all the same: whoever asks for its rows is told why.
      return [];
    }
  };
  return names.map((name) => ({ schema: null, name, columns: columnsOf(name) }));
}

/** Reads the values of the row that a statement stands at, as text. */
function rowReader({ capi, wasm }: Sqlite3Static, statement: number, width: number): () => DatabaseRow {
  const {
    sqlite3_column_type: typeOf,
    sqlite3_column_text: textOf,
    sqlite3_column_bytes: bytesOf,
  } = wasm.exports as unknown as Record<string, (statement: number, column: number) => number>;
  const decoder = new TextDecoder();
  const value = (column: number): string | null => {
    const type = typeOf!(statement, column);
    if (type === capi.SQLITE_NULL) return null;
    if (type === capi.SQLITE_BLOB) return '(binary)';
    const begin = textOf!(statement, column);
    return decoder.decode(wasm.heap8u().subarray(begin, begin + bytesOf!(statement, column)));
  };
  return () => Array.from({ length: width }, (_, column) => value(column));
}

function answer(sqlite3: Sqlite3Static, { query, rows: maximum, block }: SqliteWork): void {
  const { database, refused } = open(sqlite3);
  if (!query) return tell({ tables: tablesOf(database) });
  try {
    const statement = database.prepare(query.sql);
    const width = statement.columnCount;
    tell({ names: statement.getColumnNames() });
    if (query.values.length > 0) statement.bind(query.values);
    const read = rowReader(sqlite3, statement.pointer as unknown as number, width);
    let count = 0;
    let isWhole = true;
    let pending: DatabaseRow[] = [];
    while (statement.step()) {
      if (++count > maximum) {
        isWhole = false;
        break;
      }
      pending.push(read());
      if (pending.length < block) continue;
      tell({ rows: pending });
      pending = [];
    }
    if (pending.length > 0) tell({ rows: pending });
    tell({ isWhole });
  } catch (error) {
    const why = refused();
    throw why ? Object.assign(new Error(why), { code: 'SQLITE_AUTH' }) : error;
  }
}

async function work(asked: SqliteWork): Promise<void> {
  try {
    // Where the engine lies is told by whoever starts this process: it may look into no other folder.
    const { default: load } = (await import(process.argv[2]!)) as typeof import('@sqlite.org/sqlite-wasm');
    const silent = { print: () => undefined, printErr: () => undefined };
    const sqlite3 = await (load as (options: object) => Promise<Sqlite3Static>)(silent);
    tell({ isReady: true });
    answer(sqlite3, asked);
  } catch (error) {
    const { code = '', message = String(error) } = error as { code?: string; message?: string };
    const [, name, reason] = /^(SQLITE_\w+): sqlite3 result code \d+: (.*)$/s.exec(message) ?? [];
    tell({ failed: { code: name ?? code, message: reason ?? message } });
  }
}

/** The engine answers only when a query is done, so that whoever asks must be able to end the whole process. */
process.once('message', (asked: SqliteWork) => void work(asked));
process.once('disconnect', () => process.exit());
