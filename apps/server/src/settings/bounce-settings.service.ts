import { t } from '@mailbag/core/words';
import type { BouncesAnswer, BouncesRequest } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { Subject } from 'rxjs';
import { History } from '../history/history.service.js';
import { sealedFor, targetOf } from '../platform/stored-secret.js';
import { unseal } from '../platform/secret-box.js';
import { assertTarget } from '../platform/targets.js';
import { SettingsService } from './settings.service.js';

const NAME = 'bounces';
type Stored = Omit<BouncesRequest, 'password'> & { sealed: string };
const nothing: Stored = {
  address: '',
  host: '',
  port: 993,
  tls: true,
  checkCertificate: true,
  user: '',
  folder: 'INBOX',
  smtpPort: 0,
  sealed: '',
};

const placeOf = ({ host, port, tls, checkCertificate }: Pick<Stored, 'host' | 'port' | 'tls' | 'checkCertificate'>): string =>
  `${host}:${port}${tls ? ` (TLS${checkCertificate ? '' : ', any certificate'})` : ''}`;

/** The mailbox as it is read. */
export interface BounceMailbox {
  host: string;
  port: number;
  tls: boolean;
  checkCertificate: boolean;
  user: string;
  password: string;
  folder: string;
}

/** Where bounces are led to, and how they come in. */
@Injectable()
export class BounceSettings {
  readonly changed = new Subject<void>();
  lastLook: BouncesAnswer['lastLook'] = null;
  listening: number | null = null;
  private cached: Stored | null = null;

  constructor(
    private readonly settings: SettingsService,
    private readonly history: History,
  ) {}

  private async stored(): Promise<Stored> {
    return (this.cached ??= (await this.settings.get<Stored>(NAME)) ?? nothing);
  }

  /** Empty: bounces go to the sender's own address. */
  async address(): Promise<string> {
    return (await this.stored()).address;
  }
  async smtpPort(): Promise<number> {
    return (await this.stored()).smtpPort;
  }
  /** Null: none is read. */
  async mailbox(): Promise<BounceMailbox | null> {
    const { sealed, host, port, tls, checkCertificate, user, folder } = await this.stored();
    return host === ''
      ? null
      : { host, port, tls, checkCertificate, user, folder: folder || 'INBOX', password: sealed ? unseal(sealed) : '' };
  }

  async answer(): Promise<BouncesAnswer> {
    const { sealed, ...rest } = await this.stored();
    return { ...rest, hasPassword: sealed !== '', lastLook: this.lastLook, listening: this.listening };
  }

  /** @throws MailbagError secret-asked-again, target-local */
  async save({ password, ...rest }: BouncesRequest): Promise<void> {
    const before = await this.stored();
    const next = { ...rest, address: rest.address.trim(), host: rest.host.trim() };
    if (next.host !== '') await assertTarget(next.host, next.port);
    // Without a mailbox there is nothing that a kept password could be sent to.
    const isNowhere = next.host === '' || before.host === '';
    const [from, to] = [placeOf(before), placeOf(next)];
    const sealed = sealedFor(
      password,
      next.host === '' ? null : { sealed: before.sealed, target: targetOf(from) },
      targetOf(to),
      'the bounce mailbox',
    );
    await this.settings.set(NAME, { ...next, sealed } satisfies Stored);
    if (from !== to && !isNowhere) await this.history.note(t`pointed the bounce mailbox elsewhere`, '', `${from} → ${to}`);
    this.cached = null;
    this.lastLook = null;
    this.changed.next();
  }
}
