import type { Sql } from '../persistence/sql.js';
import { one, run } from '../persistence/sql.js';

/** What visitors have typed and go on with later, by the digest of what stands in their link. */
export const savedVisitStore = {
  keep: (sql: Sql, tokenHash: string, intakeId: number, content: string, until: string) =>
    run(sql, 'INSERT INTO saved_visit (tokenHash, intakeId, content, until) VALUES (?, ?, ?, ?)', [tokenHash, intakeId, content, until]),

  /** @returns undefined: there is none, or its time is over */
  byToken: (sql: Sql, tokenHash: string, now: string) =>
    one<{ intakeId: number; content: string }>(sql, 'SELECT intakeId, content FROM saved_visit WHERE tokenHash = ? AND until > ?', [
      tokenHash,
      now,
    ]),

  dropOver: (sql: Sql, now: string) => run(sql, 'DELETE FROM saved_visit WHERE until <= ?', [now]),
};
