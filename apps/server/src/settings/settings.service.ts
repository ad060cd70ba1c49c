import type { MailRulesAnswer } from '@mailbag/contract';
import { MOST_TRIES, retryDelay } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DateTime } from 'luxon';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { SettingEntity } from './settings.entity.js';

/** What holds for the whole of Mailbag, kept by name. */
@Injectable()
export class SettingsService {
  constructor(
    @InjectRepository(SettingEntity) private readonly settings: Repository<SettingEntity>,
    private readonly transactions: Transactions,
  ) {}

  async get<T>(name: string): Promise<T | null> {
    return ((await this.settings.findOneBy({ name }))?.value as T | undefined) ?? null;
  }

  async set(name: string, value: unknown): Promise<void> {
    await this.transactions.run((manager) => manager.save(SettingEntity, { name, value }));
  }

  /** The zone in which days are counted and shown: the office's own, or the server's where none is set. */
  async timeZone(): Promise<string> {
    const zone = (await this.get<{ timeZone?: string }>('office'))?.timeZone;
    return zone && DateTime.local({ zone }).isValid ? zone : (DateTime.local().zoneName ?? 'UTC');
  }

  /** Today where the office is. ISO 8601. */
  async today(): Promise<string> {
    return DateTime.now()
      .setZone(await this.timeZone())
      .toISODate()!;
  }

  mailRules(): MailRulesAnswer {
    return {
      retryMinutes: Array.from({ length: MOST_TRIES }, (_, index) => retryDelay(index + 1, config.retryPace) / 60_000),
      timeZone: DateTime.local().zoneName ?? 'UTC',
    };
  }
}
