import { createHash, randomBytes } from 'node:crypto';
import type { Account, SetUpRequest, SignInRequest } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { hash, verify } from '@node-rs/argon2';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { AccountEntity, SessionEntity } from './accounts.entity.js';

const DAY = 86_400_000;
const SESSION_DAYS = 14;
/** Wrong tries in a stretch of time, by address and by place. */
const TRIES = 8;
const TRIES_MINUTES = 15;

const digest = (token: string): string => createHash('sha256').update(token).digest('hex');
const toAccount = ({ id, name, email }: AccountEntity): Account => ({ id, name, email });

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
    return account && toAccount(account);
  }

  async signOut(token: string | undefined): Promise<void> {
    if (token) await this.transactions.run((manager) => manager.delete(SessionEntity, { tokenHash: digest(token) }));
  }
}
