import { createHash, randomBytes } from 'node:crypto';
import type {
  AcceptInvitationRequest,
  Account,
  InvitationAnswer,
  InvitationRequest,
  PasswordRequest,
  PeopleAnswer,
  PersonAnswer,
  PersonRequest,
  Role,
  SetUpRequest,
  SignInRequest,
} from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { hash, verify } from '@node-rs/argon2';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { AccountEntity, SessionEntity } from './accounts.entity.js';

const DAY = 86_400_000;
const SESSION_DAYS = 14;
const INVITATION_DAYS = 7;
/** Wrong tries in a stretch of time, by address and by place. */
const TRIES = 8;
const TRIES_MINUTES = 15;

const digest = (token: string): string => createHash('sha256').update(token).digest('hex');
const toAccount = ({ id, name, email, role, seesValues, seesPasswords }: AccountEntity): Account => ({
  id,
  name,
  email,
  role,
  seesValues: seesValues === 1,
  seesPasswords: seesPasswords === 1,
});
/** Minutes between notes of when an account was seen. */
const SEEN_MINUTES = 5;

@Injectable()
export class AccountsService {
  private readonly tries = new Map<string, { count: number; until: number }>();
  /** Verified against when there is no such account, so that the answer takes as long. */
  private readonly nobody = hash(randomBytes(16).toString('hex'));

  constructor(
    @InjectRepository(AccountEntity) private readonly accounts: Repository<AccountEntity>,
    @InjectRepository(SessionEntity) private readonly sessions: Repository<SessionEntity>,
    private readonly transactions: Transactions,
  ) {}

  async isSetUpNeeded(): Promise<boolean> {
    return (await this.accounts.count()) === 0;
  }

  /** Makes the first administrator. @throws MailbagError account-exists */
  async setUp({ name, email, password }: SetUpRequest): Promise<string> {
    const passwordHash = await hash(password);
    return this.transactions.run(async (manager) => {
      if ((await manager.count(AccountEntity)) > 0) throw new MailbagError('account-exists');
      const account = await manager.save(AccountEntity, {
        name: name.trim(),
        email: email.trim().toLowerCase(),
        passwordHash,
        createdAt: new Date().toISOString(),
        role: 'administrator',
        seesValues: 1,
        seesPasswords: 1,
      });
      return this.openSession(manager.getRepository(SessionEntity), account.id);
    });
  }

  /** @param place where the try comes from @throws MailbagError account-sign-in-refused, account-too-many-tries */
  async signIn({ email, password }: SignInRequest, place: string): Promise<string> {
    const address = email.trim().toLowerCase();
    const keys = [`address ${address}`, `place ${place}`];
    const now = Date.now();
    for (const key of keys) {
      const tried = this.tries.get(key);
      if (tried && tried.until > now && tried.count >= TRIES) {
        throw new MailbagError('account-too-many-tries', { minutes: Math.ceil((tried.until - now) / 60_000) });
      }
    }
    const account = await this.accounts.findOneBy({ email: address });
    const isRight = await verify(account?.passwordHash ?? (await this.nobody), password).catch(() => false);
    if (!account || !isRight) {
      for (const key of keys) {
        const tried = this.tries.get(key);
        const isRunning = tried !== undefined && tried.until > now;
        this.tries.set(key, { count: isRunning ? tried.count + 1 : 1, until: isRunning ? tried.until : now + TRIES_MINUTES * 60_000 });
      }
      if (this.tries.size > 10_000) for (const [key, tried] of this.tries) if (tried.until <= now) this.tries.delete(key);
      throw new MailbagError('account-sign-in-refused');
    }
    keys.forEach((key) => this.tries.delete(key));
    if (account.disabledAt) throw new MailbagError('account-disabled');
    return this.transactions.run((manager) => this.openSession(manager.getRepository(SessionEntity), account.id));
  }

  private async openSession(sessions: Repository<SessionEntity>, accountId: number): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const now = Date.now();
    await sessions.insert({
      tokenHash: digest(token),
      accountId,
      createdAt: new Date(now).toISOString(),
      expiresAt: new Date(now + SESSION_DAYS * DAY).toISOString(),
    });
    return token;
  }

  /** The account behind a cookie's token; null for none. */
  async accountOf(token: string | undefined): Promise<Account | null> {
    if (!token) return null;
    const session = await this.sessions.findOneBy({ tokenHash: digest(token) });
    if (!session || session.expiresAt < new Date().toISOString()) return null;
    const account = await this.accounts.findOneBy({ id: session.accountId });
    if (!account || account.disabledAt) return null;
    const now = Date.now();
    if (!account.lastSeenAt || Date.parse(account.lastSeenAt) < now - SEEN_MINUTES * 60_000)
      // Nobody waits for this note, and no question fails because of it.
      void this.transactions
        .run((manager) => manager.query('UPDATE account SET lastSeenAt = ? WHERE id = ?', [new Date(now).toISOString(), account.id]))
        .catch(() => undefined);
    return toAccount(account);
  }

  /** Ends every session of an account. @param but the token of one that stays */
  async signOutEverywhere(accountId: number, but?: string): Promise<void> {
    await this.transactions.run((manager) =>
      manager.query('DELETE FROM session WHERE accountId = ? AND tokenHash <> ?', [accountId, but ? digest(but) : '']),
    );
  }

  /** @throws MailbagError account-sign-in-refused */
  async changePassword(accountId: number, { before, password }: PasswordRequest, token: string | undefined): Promise<void> {
    const account = await this.accounts.findOneByOrFail({ id: accountId });
    if (!(await verify(account.passwordHash, before).catch(() => false))) throw new MailbagError('account-sign-in-refused');
    const passwordHash = await hash(password);
    await this.transactions.run((manager) => manager.query('UPDATE account SET passwordHash = ? WHERE id = ?', [passwordHash, accountId]));
    await this.signOutEverywhere(accountId, token);
  }

  private people(): Promise<PersonAnswer[]> {
    return this.transactions
      .read<AccountEntity & { sessions: number }>(
        'SELECT account.*, (SELECT COUNT(*) FROM session WHERE session.accountId = account.id AND session.expiresAt > ?) AS sessions FROM account ORDER BY name',
        [new Date().toISOString()],
      )
      .then((rows) =>
        rows.map((row) => ({ ...toAccount(row), closed: row.disabledAt !== null, lastSeenAt: row.lastSeenAt, sessions: row.sessions })),
      );
  }

  async peopleAnswer(): Promise<PeopleAnswer> {
    const invitations = await this.transactions.read<InvitationAnswer>(
      'SELECT substr(tokenHash, 1, 16) AS id, name, email, role, who, expiresAt FROM invitation WHERE expiresAt > ? ORDER BY createdAt',
      [new Date().toISOString()],
    );
    return { people: await this.people(), invitations };
  }

  /** @throws MailbagError account-last-administrator, not-found */
  async savePerson(id: number, { name, role, seesValues, seesPasswords, closed = false }: PersonRequest): Promise<PeopleAnswer> {
    await this.transactions.run(async (manager) => {
      await manager.query('UPDATE account SET name = ?, role = ?, seesValues = ?, seesPasswords = ?, disabledAt = ? WHERE id = ?', [
        name.trim(),
        role,
        seesValues ? 1 : 0,
        seesPasswords ? 1 : 0,
        closed ? new Date().toISOString() : null,
        id,
      ]);
      const [left] = (await manager.query("SELECT COUNT(*) AS count FROM account WHERE role = 'administrator' AND disabledAt IS NULL")) as {
        count: number;
      }[];
      if (left!.count === 0) throw new MailbagError('account-last-administrator');
      if (closed) await manager.query('DELETE FROM session WHERE accountId = ?', [id]);
    });
    return this.peopleAnswer();
  }

  /** Makes an invitation that holds for a week. @returns the token, which is in the address only */
  async invite({ name, email, role, seesValues, seesPasswords }: InvitationRequest, who: string): Promise<string> {
    const address = email.trim().toLowerCase();
    if (await this.accounts.findOneBy({ email: address }))
      throw new MailbagError('request-wrong', { why: `${address} has an account already` });
    const token = randomBytes(32).toString('base64url');
    const now = Date.now();
    await this.transactions.run(async (manager) => {
      await manager.query('DELETE FROM invitation WHERE email = ?', [address]);
      await manager.query(
        'INSERT INTO invitation (tokenHash, email, name, role, seesValues, seesPasswords, who, createdAt, expiresAt) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
        [
          digest(token),
          address,
          name.trim(),
          role,
          seesValues ? 1 : 0,
          seesPasswords ? 1 : 0,
          who,
          new Date(now).toISOString(),
          new Date(now + INVITATION_DAYS * DAY).toISOString(),
        ],
      );
    });
    return token;
  }

  async takeBack(id: string): Promise<PeopleAnswer> {
    await this.transactions.run((manager) => manager.query('DELETE FROM invitation WHERE substr(tokenHash, 1, 16) = ?', [id]));
    return this.peopleAnswer();
  }

  /** Who an invitation is for. @throws MailbagError invitation-over */
  async invitation(token: string): Promise<{ name: string; email: string }> {
    const [found] = await this.transactions.read<{ name: string; email: string }>(
      'SELECT name, email FROM invitation WHERE tokenHash = ? AND expiresAt > ?',
      [digest(token), new Date().toISOString()],
    );
    if (!found) throw new MailbagError('invitation-over');
    return found;
  }

  /** @returns token of a session @throws MailbagError invitation-over */
  async accept({ token, password }: AcceptInvitationRequest): Promise<string> {
    const passwordHash = await hash(password);
    return this.transactions.run(async (manager) => {
      const now = new Date().toISOString();
      const [found] = (await manager.query('DELETE FROM invitation WHERE tokenHash = ? AND expiresAt > ? RETURNING *', [
        digest(token),
        now,
      ])) as { name: string; email: string; role: Role; seesValues: number; seesPasswords: number }[];
      if (!found) throw new MailbagError('invitation-over');
      const { name, email, role, seesValues, seesPasswords } = found;
      const account = await manager.save(AccountEntity, { name, email, role, seesValues, seesPasswords, passwordHash, createdAt: now });
      return this.openSession(manager.getRepository(SessionEntity), account.id);
    });
  }

  async signOut(token: string | undefined): Promise<void> {
    if (token) await this.transactions.run((manager) => manager.delete(SessionEntity, { tokenHash: digest(token) }));
  }
}
