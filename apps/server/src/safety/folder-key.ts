import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { MailbagError } from '@mailbag/core';
import { DATABASE, KEY } from '@mailbag/folder';
import Database from 'libsql';
import { forgetKey, unseal } from '../platform/secret-box.js';

/** Where secrets are kept in the database: what each belongs to, for people, and the column that holds it. */
const places: { table: string; column: string; name: string }[] = [
  { table: 'mail_server', column: 'sealed', name: "'mail server ' || name" },
  { table: 'sender', column: 'dkimSealed', name: "'signing key of ' || address" },
  { table: 'connection', column: 'sealed', name: "'database ' || name" },
  { table: 'register', column: 'sealed', name: "'register ' || name" },
];
const BOUNCES = "SELECT json_extract(value, '$.sealed') AS sealed FROM setting WHERE name = 'bounces'";
/** All that have a secret now, by name. */
export const kept = [
  ...places.map(({ table, column, name }) => `SELECT ${name} AS name FROM ${table} WHERE ${column} <> ''`),
  "SELECT 'bounce mailbox' AS name FROM setting WHERE name = 'bounces' AND json_extract(value, '$.sealed') <> ''",
].join(' UNION ALL ');
/** The setting that remembers what went with a lost key. */
export const LOST_SECRETS = 'lost-secrets';
/** What the key is tried on. */
export const KEY_CHECK = 'this is the key of this folder';

interface Sealed {
  name: string;
  sealed: string;
}

class Secrets {
  constructor(private readonly database: Database.Database) {}

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
  empty(lost: readonly string[]): void {
    for (const { table, column } of places) if (this.has(table, column)) this.database.exec(`UPDATE ${table} SET ${column} = ''`);
    if (!this.has('setting')) return;
    this.database.exec("UPDATE setting SET value = json_set(value, '$.sealed', '') WHERE name = 'bounces'");
    this.database.prepare('INSERT OR REPLACE INTO setting (name, value) VALUES (?, ?)').run([LOST_SECRETS, JSON.stringify(lost)]);
    if (this.has('folder_state')) this.database.exec('UPDATE folder_state SET keyCheck = NULL');
  }
}

const opens = (sealed: string): boolean => {
  try {
    unseal(sealed);
    return true;
  } catch {
    return false;
  }
};

/**
 * Looks whether the key is there and opens what the database holds, before anything else is done: a new key that is written silently would leave
 * passwords that nothing opens.
 * @param isNewWanted whether the administrator has said that the old key is lost
 * @throws MailbagError key-missing, key-wrong
 */
export function assertKey(folder: string, isNewWanted: boolean): void {
  const path = join(folder, KEY);
  const isThere = existsSync(path) && readFileSync(path).length === 32;
  const make = (): void => {
    if (existsSync(path)) renameSync(path, `${path}.old`);
    writeFileSync(path, randomBytes(32), { mode: 0o600, flag: 'wx' });
    forgetKey();
  };
  if (!existsSync(join(folder, DATABASE))) return isThere ? undefined : make();
  const database = new Database(join(folder, DATABASE));
  try {
    database.pragma('busy_timeout = 5000');
    const secrets = new Secrets(database);
    const all = secrets.all();
    const check = secrets.check();
    const isRight = isThere && (check === null ? all.every(({ sealed }) => opens(sealed)) : opens(check));
    if (isRight) return;
    // As long as nothing is encrypted, any key will do.
    if (all.length === 0) {
      if (!isThere) make();
      return secrets.empty([]);
    }
    const names = all.map(({ name }) => name);
    if (!isNewWanted) throw new MailbagError(isThere ? 'key-wrong' : 'key-missing', { path, names });
    make();
    secrets.empty(names);
  } finally {
    database.close();
  }
}
