import Database from 'libsql';
import type { Sql } from '../persistence/sql.js';
import { rows } from '../persistence/sql.js';

/** Where secrets are kept in the database: what each belongs to, for people, and the column that holds it. */
const places: { table: string; column: string; name: string }[] = [
  { table: 'mail_server', column: 'sealed', name: "'mail server ' || name" },
  { table: 'sender', column: 'dkimSealed', name: "'signing key of ' || address" },
  { table: 'connection', column: 'sealed', name: "'database ' || name" },
  { table: 'register', column: 'sealed', name: "'register ' || name" },
];
const BOUNCES = "SELECT json_extract(value, '$.sealed') AS sealed FROM setting WHERE name = 'bounces'";
/** All that have a secret now, by name. */
const kept = [
  ...places.map(({ table, column, name }) => `SELECT ${name} AS name FROM ${table} WHERE ${column} <> ''`),
  "SELECT 'bounce mailbox' AS name FROM setting WHERE name = 'bounces' AND json_extract(value, '$.sealed') <> ''",
].join(' UNION ALL ');
export interface Sealed {
  name: string;
  sealed: string;
}

/** Secrets as they lie in a database that nothing else has opened yet; it may be of an earlier version and lack tables. */
export class SecretsBeforeStart {
  private readonly database: Database.Database;

  constructor(path: string) {
    this.database = new Database(path);
    this.database.pragma('busy_timeout = 5000');
  }

  close(): void {
    this.database.close();
  }

  private has(table: string, column = 'rowid'): boolean {
    const found = this.database.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = ?").all([table]);
    return (
      found.length > 0 &&
      (column === 'rowid' || this.database.prepare('SELECT 1 FROM pragma_table_info(?) WHERE name = ?').all([table, column]).length > 0)
    );
  }

  all(): Sealed[] {
    const found = places
      .filter(({ table, column }) => this.has(table, column))
      .flatMap(
        ({ table, column, name }) =>
          this.database.prepare(`SELECT ${name} AS name, ${column} AS sealed FROM ${table} WHERE ${column} <> ''`).all([]) as Sealed[],
      );
    const [bounces] = this.has('setting') ? (this.database.prepare(BOUNCES).all([]) as { sealed: string | null }[]) : [];
    return bounces?.sealed ? [...found, { name: 'bounce mailbox', sealed: bounces.sealed }] : found;
  }

  check(): string | null {
    if (!this.has('folder_state')) return null;
    const [row] = this.database.prepare('SELECT keyCheck FROM folder_state').all([]) as { keyCheck: string | null }[];
    return row?.keyCheck ?? null;
  }

  /** What no key opens any more is emptied, and remembered for those who enter it again. */
  empty(lost: readonly string[], setting: string): void {
    for (const { table, column } of places) if (this.has(table, column)) this.database.exec(`UPDATE ${table} SET ${column} = ''`);
    if (!this.has('setting')) return;
    this.database.exec("UPDATE setting SET value = json_set(value, '$.sealed', '') WHERE name = 'bounces'");
    this.database.prepare('INSERT OR REPLACE INTO setting (name, value) VALUES (?, ?)').run([setting, JSON.stringify(lost)]);
    if (this.has('folder_state')) this.database.exec('UPDATE folder_state SET keyCheck = NULL');
  }
}

export const secretStore = {
  /** Names of all that have a secret. */
  names: (sql: Sql) => rows<{ name: string }>(sql, kept),
};
