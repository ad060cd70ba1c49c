import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { MailbagError } from '@mailbag/core/errors';
import { DATABASE, KEY } from '@mailbag/folder/layout';
import { SecretsBeforeStart } from '../stores/secret.store.js';
import { forgetKey, unseal } from '../platform/secret-box.js';

/** The setting that remembers what went with a lost key. */
export const LOST_SECRETS = 'lost-secrets';
/** What the key is tried on. */
export const KEY_CHECK = 'this is the key of this folder';

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
  const secrets = new SecretsBeforeStart(join(folder, DATABASE));
  try {
    const all = secrets.all();
    const check = secrets.check();
    const isRight = isThere && (check === null ? all.every(({ sealed }) => opens(sealed)) : opens(check));
    if (isRight) return;
    // As long as nothing is encrypted, any key will do.
    if (all.length === 0) {
      if (!isThere) make();
      return secrets.empty([], LOST_SECRETS);
    }
    const names = all.map(({ name }) => name);
    if (!isNewWanted) throw new MailbagError(isThere ? 'key-wrong' : 'key-missing', { path, names });
    make();
    secrets.empty(names, LOST_SECRETS);
  } finally {
    secrets.close();
  }
}
