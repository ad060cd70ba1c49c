import type { Sql } from '../persistence/sql.js';
import { one, run } from '../persistence/sql.js';

export const folderStore = {
  state: (sql: Sql) =>
    one<{ folder: string; claims: number; held: string | null; keyCheck: string | null }>(
      sql,
      'SELECT folder, claims, held, keyCheck FROM folder_state',
    ),

  setState: (sql: Sql, folder: string, held: string | null, keyCheck: string) =>
    run(sql, 'UPDATE folder_state SET folder = ?, held = ?, keyCheck = ?', [folder, held, keyCheck]),

  claim: (sql: Sql) => one<{ claims: number }>(sql, 'UPDATE folder_state SET claims = claims + 1 RETURNING claims'),

  release: (sql: Sql) => run(sql, 'UPDATE folder_state SET held = NULL'),

  /** What digests of keys and values are salted with. */
  salt: async (sql: Sql) => (await one<{ salt: string }>(sql, 'SELECT salt FROM folder_state'))!.salt,
};
