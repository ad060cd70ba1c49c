import type { InvitationAnswer, Role, SpokenLanguage } from '@mailbag/contract';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';
import type { Principal } from '../platform/principal.js';
import { principalKey } from '../platform/principal.js';

/** What an account may do and see. */
export interface AccountProfile {
  name: string;
  role: Role;
  seesValues: boolean;
  seesPasswords: boolean;
}

/** An account as it is kept. */
export interface AccountRow {
  id: number;
  name: string;
  email: string;
  passwordHash: string;
  createdAt: string;
  role: Role;
  seesValues: number;
  seesPasswords: number;
  /** Since when nobody can sign in with it. */
  disabledAt: string | null;
  lastSeenAt: string | null;
  language: SpokenLanguage;
  /** Whether they are told by mail when a long batch of theirs ended. */
  mailsBatches: number;
}

export const accountStore = {
  /** Sessions that ran out. */
  endExpiredSessions: (sql: Sql, now: string) => run(sql, 'DELETE FROM session WHERE expiresAt < ?', [now]),

  /** Invitations that ran out. */
  dropExpiredInvitations: (sql: Sql, now: string) => run(sql, 'DELETE FROM invitation WHERE expiresAt < ?', [now]),

  /** When somebody was here last. */
  seen: (sql: Sql, at: string, id: number) => run(sql, 'UPDATE account SET lastSeenAt = ? WHERE id = ?', [at, id]),

  /** All sessions of an account but one; an empty digest spares none. */
  endSessions: (sql: Sql, accountId: number, butTokenHash: string) =>
    run(sql, 'DELETE FROM session WHERE accountId = ? AND tokenHash <> ?', [accountId, butTokenHash]),

  setPassword: (sql: Sql, passwordHash: string, id: number) =>
    run(sql, 'UPDATE account SET passwordHash = ? WHERE id = ?', [passwordHash, id]),

  /** In which language somebody is spoken to (ISO 639-1); empty: as their browser asks, and for who has no account. */
  languageOf: async (sql: Sql, { kind, id }: Principal): Promise<string> =>
    (kind === 'person' && (await one<{ language: string }>(sql, 'SELECT language FROM account WHERE id = ?', [id!]))?.language) || '',

  setLanguage: (sql: Sql, language: SpokenLanguage, id: number) => run(sql, 'UPDATE account SET language = ? WHERE id = ?', [language, id]),

  setMailsBatches: (sql: Sql, mailsBatches: boolean, id: number) =>
    run(sql, 'UPDATE account SET mailsBatches = ? WHERE id = ?', [mailsBatches ? 1 : 0, id]),

  /** All accounts by name, with how many sessions each has. */
  withSessions: (sql: Sql, now: string) =>
    rows<AccountRow & { sessions: number }>(
      sql,
      'SELECT account.*, (SELECT COUNT(*) FROM session WHERE session.accountId = account.id AND session.expiresAt > ?) AS sessions FROM account ORDER BY name',
      [now],
    ),

  /** Invitations that can still be taken; the id is the beginning of the digest. */
  openInvitations: (sql: Sql, now: string) =>
    rows<InvitationAnswer>(
      sql,
      'SELECT substr(tokenHash, 1, 16) AS id, name, email, role, who, expiresAt FROM invitation WHERE expiresAt > ? ORDER BY createdAt',
      [now],
    ),

  /** How many administrators can sign in. */
  openAdministrators: (sql: Sql) =>
    one<{
      count: number;
    }>(sql, "SELECT COUNT(*) AS count FROM account WHERE role = 'administrator' AND disabledAt IS NULL"),

  endAllSessions: (sql: Sql, accountId: number) => run(sql, 'DELETE FROM session WHERE accountId = ?', [accountId]),

  dropInvitationsTo: (sql: Sql, email: string) => run(sql, 'DELETE FROM invitation WHERE email = ?', [email]),

  /** By the beginning of the digest. */
  dropInvitation: (sql: Sql, id: string) => run(sql, 'DELETE FROM invitation WHERE substr(tokenHash, 1, 16) = ?', [id]),

  /** An invitation that can still be taken. */
  invitation: (sql: Sql, tokenHash: string, now: string) =>
    one<{ name: string; email: string }>(sql, 'SELECT name, email FROM invitation WHERE tokenHash = ? AND expiresAt > ?', [tokenHash, now]),

  /** Takes an invitation, once. */
  takeInvitation: (sql: Sql, tokenHash: string, now: string) =>
    one<{ name: string; email: string; role: Role; seesValues: number; seesPasswords: number }>(
      sql,
      'DELETE FROM invitation WHERE tokenHash = ? AND expiresAt > ? RETURNING *',
      [tokenHash, now],
    ),

  /** What an administrator says of an account. @param disabledAt null: it is open */
  setProfile: (sql: Sql, id: number, profile: AccountProfile, disabledAt: string | null) =>
    run(sql, 'UPDATE account SET name = ?, role = ?, seesValues = ?, seesPasswords = ?, disabledAt = ? WHERE id = ?', [
      profile.name,
      profile.role,
      profile.seesValues ? 1 : 0,
      profile.seesPasswords ? 1 : 0,
      disabledAt,
      id,
    ]),

  addInvitation: (
    sql: Sql,
    invitation: AccountProfile & { tokenHash: string; email: string; who: Principal; createdAt: string; expiresAt: string },
  ) =>
    run(
      sql,
      'INSERT INTO invitation (tokenHash, email, name, role, seesValues, seesPasswords, who, principal, createdAt, expiresAt) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [
        invitation.tokenHash,
        invitation.email,
        invitation.name,
        invitation.role,
        invitation.seesValues ? 1 : 0,
        invitation.seesPasswords ? 1 : 0,
        invitation.who.name,
        principalKey(invitation.who),
        invitation.createdAt,
        invitation.expiresAt,
      ],
    ),
};
