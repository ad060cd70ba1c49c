import { createHash } from 'node:crypto';
import { createReadStream, existsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { MailbagError } from '@mailbag/core';
import Database from 'libsql';
import { DATABASE, KEY } from './layout.js';

/** One kind of thing that is not as it should be. */
export interface SelfCheckFault {
  kind: 'database' | 'copies-missing' | 'copies-changed' | 'templates-missing' | 'sources-missing' | 'attachments-missing' | 'key-missing';
  count: number;
  /** The first of them, by name or in the database's own words. */
  names: string[];
}
export interface SelfCheckResult {
  /** ISO 8601. */
  at: string;
  /** Whether digests were compared, or only that files are there with their sizes. */
  thorough: boolean;
  copies: number;
  faults: SelfCheckFault[];
}

const MOST_NAMES = 20;
const BLOCK = 1000;

/** Counts and keeps the first names. */
class Faults {
  private readonly found = new Map<SelfCheckFault['kind'], SelfCheckFault>();
  add(kind: SelfCheckFault['kind'], name: string): void {
    const fault = this.found.get(kind) ?? { kind, count: 0, names: [] };
    fault.count++;
    if (fault.names.length < MOST_NAMES) fault.names.push(name);
    this.found.set(kind, fault);
  }
  list(): SelfCheckFault[] {
    return [...this.found.values()];
  }
}

async function digestOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

/** How a file stands to what is known of it. */
async function stateOf(
  path: string,
  size: number | null,
  digest: string | null,
  thorough: boolean,
): Promise<'whole' | 'missing' | 'changed'> {
  const facts = statSync(path, { throwIfNoEntry: false });
  if (!facts?.isFile()) return 'missing';
  if (size !== null && facts.size !== size) return 'changed';
  return thorough && digest !== null && (await digestOf(path)) !== digest ? 'changed' : 'whole';
}

/**
 * Looks whether a data folder is whole: the database in itself, and the files that it speaks of. Reads only, and may run beside a server.
 * @param thorough also compares digests, which reads every file
 * @throws MailbagError folder-none
 */
export async function selfCheck(folder: string, thorough: boolean): Promise<SelfCheckResult> {
  if (!existsSync(join(folder, DATABASE))) throw new MailbagError('folder-none', { folder });
  const faults = new Faults();
  const database = new Database(join(folder, DATABASE), { readonly: true });
  let copies = 0;
  try {
    database.pragma('busy_timeout = 10000');
    // The quick way leaves out whether each index agrees with its table (SQLite, PRAGMA quick_check).
    for (const fault of (database.pragma(thorough ? 'integrity_check' : 'quick_check') as Record<string, string>[]).flatMap((row) =>
      Object.values(row).filter((value) => typeof value === 'string'),
    ))
      if (fault !== 'ok') faults.add('database', fault);
    const select = database.prepare(
      "SELECT id, code, path, size, sha256 FROM copy WHERE id > ? AND sha256 IS NOT NULL AND state NOT IN ('planned', 'withdrawn') ORDER BY id LIMIT ?",
    );
    for (let after = 0; ;) {
      const rows = select.all([after, BLOCK]) as { id: number; code: string; path: string; size: number; sha256: string }[];
      for (const { code, path, size, sha256 } of rows) {
        copies++;
        const state = await stateOf(join(folder, 'archive', path), size, sha256, thorough);
        if (state !== 'whole') faults.add(state === 'missing' ? 'copies-missing' : 'copies-changed', `${code} ${path}`);
      }
      if (rows.length < BLOCK) break;
      after = rows.at(-1)!.id;
    }
    for (const { hash, fileName } of database.prepare('SELECT hash, fileName FROM template_revision').all([]) as {
      hash: string;
      fileName: string;
    }[])
      if ((await stateOf(join(folder, 'templates', `${hash}.pdf`), null, hash, true)) !== 'whole')
        faults.add('templates-missing', fileName);
    const files = database
      .prepare(
        "SELECT source.name, json_extract(one.value, '$.fileId') AS fileId FROM source, json_each(source.files) AS one WHERE source.query IS NULL",
      )
      .all([]) as { name: string; fileId: string }[];
    for (const { name, fileId } of files) if (fileId && !existsSync(join(folder, 'sources', fileId))) faults.add('sources-missing', name);
    const attached = database
      .prepare(
        "SELECT DISTINCT json_extract(one.value, '$.fileId') AS fileId, json_extract(one.value, '$.name') AS name FROM mailing, json_each(mailing.plan, '$.message.extraFiles') AS one",
      )
      .all([]) as { fileId: string; name: string }[];
    for (const { fileId, name } of attached)
      if ((await stateOf(join(folder, 'attachments', fileId), null, fileId, true)) !== 'whole') faults.add('attachments-missing', name);
  } finally {
    database.close();
  }
  if (!existsSync(join(folder, KEY))) faults.add('key-missing', KEY);
  return { at: new Date().toISOString(), thorough, copies, faults: faults.list() };
}
