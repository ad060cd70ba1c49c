import type { MailSettingsAnswer, MailSettingsRequest } from '@mailbag/contract';
import { MOST_TRIES, retryDelay } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Subject } from 'rxjs';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { seal, unseal } from '../platform/secret-box.js';
import { SettingEntity } from './settings.entity.js';

export interface MailSettings {
  host: string;
  port: number;
  tls: boolean;
  user: string;
  password: string;
  senderName: string;
  senderAddress: string;
}

type Stored = Omit<MailSettings, 'password'> & { sealed: string };
const MAIL = 'mail';

@Injectable()
export class SettingsService {
  /** Tells that the mail settings changed. */
  readonly mailChanged = new Subject<void>();

  constructor(
    @InjectRepository(SettingEntity) private readonly settings: Repository<SettingEntity>,
    private readonly transactions: Transactions,
  ) {}

  private async stored(): Promise<Stored | null> {
    return ((await this.settings.findOneBy({ name: MAIL }))?.value as Stored | undefined) ?? null;
  }

  /** Null: none set up. */
  async mail(): Promise<MailSettings | null> {
    const stored = await this.stored();
    if (!stored) return null;
    const { sealed, ...rest } = stored;
    return { ...rest, password: sealed ? unseal(sealed) : '' };
  }

  async mailAnswer(): Promise<MailSettingsAnswer> {
    const stored = await this.stored();
    const { sealed = '', ...rest } = stored ?? { host: '', port: 587, tls: false, user: '', senderName: '', senderAddress: '' };
    return {
      ...rest,
      hasPassword: sealed !== '',
      configured: stored !== null,
      retryMinutes: Array.from({ length: MOST_TRIES }, (_, index) => retryDelay(index + 1, config.retryPace) / 60_000),
    };
  }

  /** The settings a request asks for, with the stored password where it names none. */
  async merged({ password, ...rest }: MailSettingsRequest): Promise<MailSettings> {
    return { ...rest, password: password ?? (await this.mail())?.password ?? '' };
  }

  async saveMail(request: MailSettingsRequest): Promise<void> {
    const { password, ...rest } = await this.merged(request);
    await this.transactions.run((manager) =>
      manager.save(SettingEntity, { name: MAIL, value: { ...rest, sealed: password ? seal(password) : '' } satisfies Stored }),
    );
    this.mailChanged.next();
  }
}
