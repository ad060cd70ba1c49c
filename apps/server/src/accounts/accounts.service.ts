import { createHash, randomBytes } from 'node:crypto';
import type {
  AcceptInvitationRequest,
  Account,
  InvitationRequest,
  LanguageRequest,
  MailWishRequest,
  PasswordRequest,
  PeopleAnswer,
  PersonAnswer,
  PersonRequest,
  SetUpRequest,
  SignInRequest,
} from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Subject } from 'rxjs';
import { Repository } from 'typeorm';
import { History } from '../history/history.service.js';
import { Transactions } from '../persistence/transactions.js';
import { AccountEntity, SessionEntity } from './accounts.entity.js';
import { Passwords } from './passwords.service.js';
import type { TryKey } from './tries.js';
import { Tries, stretchOf } from './tries.js';
import { accountStore } from '../stores/account.store.js';
import type { Principal } from '../platform/principal.js';

const DAY = 86_400_000;
const SESSION_DAYS = 14;
const INVITATION_DAYS = 7;
/** Tries of one account from one place, from one place whatever the account, and of one account from anywhere. */
const OWN = { free: 5, longest: 300 };
const FROM_PLACE = { free: 30, longest: 300 };
const ANYWHERE = { free: 30, longest: 5 };

const MOST_PLACES = 10_000;
const STRANGER: Principal = { kind: 'visitor', id: null, name: t`somebody` };

const digest = (token: string): string => createHash('sha256').update(token).digest('hex');
const toAccount = ({ id, name, email, role, seesValues, seesPasswords, language, mailsBatches }: AccountEntity): Account => ({
  id,
  name,
  email,
  role,
  seesValues: seesValues === 1,
  seesPasswords: seesPasswords === 1,
  language,
  mailsBatches: mailsBatches === 1,
});
/** Minutes between notes of when an account was seen. */
const SEEN_MINUTES = 5;

@Injectable()
export class AccountsService {
  /** Told when sessions were ended before their time. */
  readonly sessionsEnded = new Subject<void>();
  private readonly tries = new Tries();
  /** Places from which an account has signed in: others who guess at it elsewhere do not hold it up there. */
  private readonly knownPlaces = new Set<string>();

  constructor(
    @InjectRepository(AccountEntity) private readonly accounts: Repository<AccountEntity>,
    @InjectRepository(SessionEntity) private readonly sessions: Repository<SessionEntity>,
    private readonly transactions: Transactions,
    private readonly passwords: Passwords,
    private readonly history: History,
  ) {}

  async isSetUpNeeded(): Promise<boolean> {
    return (await this.accounts.count()) === 0;
  }

  /** Makes the first administrator. @throws MailbagError account-exists, password-weak */
  async setUp({ name, email, password }: SetUpRequest, place: string): Promise<string> {
    if (!(await this.isSetUpNeeded())) throw new MailbagError('account-exists');
    await this.passwords.assertStrong(password, [name, email]);
    const passwordHash = await this.passwords.hash(stretchOf(place), password);
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

  /** @param place address that the try comes from @throws MailbagError account-sign-in-refused, account-too-many-tries, account-disabled, work-too-many */
  async signIn({ email, password }: SignInRequest, place: string): Promise<string> {
    const address = email.trim().toLowerCase();
    const stretch = stretchOf(place);
    const own = `${address} from ${stretch}`;
    const keys: TryKey[] = [
      { name: own, ...OWN },
      { name: `place ${stretch}`, ...FROM_PLACE },
      ...(this.knownPlaces.has(own) ? [] : [{ name: `account ${address}`, ...ANYWHERE }]),
    ];
    this.tries.begin(keys);
    const account = await this.accounts.findOneBy({ email: address });
    if (!(await this.passwords.isRight(stretch, account?.passwordHash ?? null, password)) || !account) {
      // What was typed in place of an address may be a password, so only those of accounts are told.
      await this.history.noteOften(t`could not sign in`, account?.email ?? t`an unknown address`, t`from network ${stretch}`, STRANGER);
      throw new MailbagError('account-sign-in-refused');
    }
    this.tries.right(keys, own);
    if (this.knownPlaces.size > MOST_PLACES) this.knownPlaces.delete(this.knownPlaces.values().next().value!);
    this.knownPlaces.add(own);
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

  /** Sessions that are over leave the database. */
  async sweepSessions(): Promise<void> {
    const now = new Date().toISOString();
    await this.transactions.run(async (manager) => {
      await accountStore.endExpiredSessions(manager, now);
      await accountStore.dropExpiredInvitations(manager, now);
    });
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
      void this.transactions.run((manager) => accountStore.seen(manager, new Date(now).toISOString(), account.id)).catch(() => undefined);
    return toAccount(account);
  }

  /** Ends every session of an account. @param but the token of one that stays */
  async signOutEverywhere(accountId: number, but?: string): Promise<void> {
    await this.transactions.run((manager) => accountStore.endSessions(manager, accountId, but ? digest(but) : ''));
    this.sessionsEnded.next();
  }

  /** Of what somebody is told by mail. */
  async tellByMail(accountId: number, { mailsBatches }: MailWishRequest): Promise<void> {
    await this.transactions.run((manager) => accountStore.setMailsBatches(manager, mailsBatches, accountId));
  }

  /** In which language somebody is spoken to. */
  async speakTo(accountId: number, { language }: LanguageRequest): Promise<void> {
    await this.transactions.run((manager) => accountStore.setLanguage(manager, language, accountId));
  }

  /** @throws MailbagError account-sign-in-refused, account-too-many-tries, password-weak, work-too-many */
  async changePassword(accountId: number, { before, password }: PasswordRequest, token: string | undefined, place: string): Promise<void> {
    const stretch = stretchOf(place);
    const key: TryKey = { name: `password of ${accountId} from ${stretch}`, ...OWN };
    this.tries.begin([key]);
    const account = await this.accounts.findOneByOrFail({ id: accountId });
    if (!(await this.passwords.isRight(stretch, account.passwordHash, before))) throw new MailbagError('account-sign-in-refused');
    this.tries.right([key], key.name);
    await this.passwords.assertStrong(password, [account.name, account.email]);
    const passwordHash = await this.passwords.hash(stretch, password);
    await this.transactions.run((manager) => accountStore.setPassword(manager, passwordHash, accountId));
    await this.signOutEverywhere(accountId, token);
  }

  private people(): Promise<PersonAnswer[]> {
    return accountStore
      .withSessions(this.transactions, new Date().toISOString())
      .then((rows) =>
        rows.map((row) => ({ ...toAccount(row), closed: row.disabledAt !== null, lastSeenAt: row.lastSeenAt, sessions: row.sessions })),
      );
  }

  async peopleAnswer(): Promise<PeopleAnswer> {
    const invitations = await accountStore.openInvitations(this.transactions, new Date().toISOString());
    return { people: await this.people(), invitations };
  }

  /** @throws MailbagError account-last-administrator, not-found */
  async savePerson(id: number, { name, role, seesValues, seesPasswords, closed = false }: PersonRequest): Promise<PeopleAnswer> {
    await this.transactions.run(async (manager) => {
      const profile = { name: name.trim(), role, seesValues, seesPasswords };
      await accountStore.setProfile(manager, id, profile, closed ? new Date().toISOString() : null);
      const left = await accountStore.openAdministrators(manager);
      if (left!.count === 0) throw new MailbagError('account-last-administrator');
      if (closed) await accountStore.endAllSessions(manager, id);
    });
    this.sessionsEnded.next();
    return this.peopleAnswer();
  }

  /** Makes an invitation that holds for a week. @returns the token, which is in the address only */
  async invite({ name, email, role, seesValues, seesPasswords }: InvitationRequest, who: Principal): Promise<string> {
    const address = email.trim().toLowerCase();
    if (await this.accounts.findOneBy({ email: address }))
      throw new MailbagError('request-wrong', { why: t`${address} has an account already` });
    const token = randomBytes(32).toString('base64url');
    const now = Date.now();
    await this.transactions.run(async (manager) => {
      await accountStore.dropInvitationsTo(manager, address);
      await accountStore.addInvitation(manager, {
        tokenHash: digest(token),
        email: address,
        name: name.trim(),
        role,
        seesValues,
        seesPasswords,
        who,
        createdAt: new Date(now).toISOString(),
        expiresAt: new Date(now + INVITATION_DAYS * DAY).toISOString(),
      });
    });
    return token;
  }

  async takeBack(id: string): Promise<PeopleAnswer> {
    await this.transactions.run((manager) => accountStore.dropInvitation(manager, id));
    return this.peopleAnswer();
  }

  /** Who an invitation is for. @throws MailbagError invitation-over, account-too-many-tries */
  async invitation(token: string, place: string): Promise<{ name: string; email: string }> {
    const key: TryKey = { name: `invitation from ${stretchOf(place)}`, ...FROM_PLACE };
    this.tries.begin([key]);
    const found = await accountStore.invitation(this.transactions, digest(token), new Date().toISOString());
    if (!found) throw new MailbagError('invitation-over');
    this.tries.right([key], '');
    return found;
  }

  /** @returns token of a session @throws MailbagError invitation-over, account-too-many-tries, password-weak, work-too-many */
  async accept({ token, password }: AcceptInvitationRequest, place: string): Promise<string> {
    // The token first: nothing is computed for whoever has none.
    const invited = await this.invitation(token, place);
    await this.passwords.assertStrong(password, [invited.name, invited.email]);
    const passwordHash = await this.passwords.hash(stretchOf(place), password);
    return this.transactions.run(async (manager) => {
      const now = new Date().toISOString();
      const found = await accountStore.takeInvitation(manager, digest(token), now);
      if (!found) throw new MailbagError('invitation-over');
      const { name, email, role, seesValues, seesPasswords } = found;
      const account = await manager.save(AccountEntity, { name, email, role, seesValues, seesPasswords, passwordHash, createdAt: now });
      return this.openSession(manager.getRepository(SessionEntity), account.id);
    });
  }

  async signOut(token: string | undefined): Promise<void> {
    if (!token) return;
    await this.transactions.run((manager) => manager.delete(SessionEntity, { tokenHash: digest(token) }));
    this.sessionsEnded.next();
  }
}
