import type { MailRulesAnswer } from '@mailbag/contract';
import { MOST_TRIES, retryDelay } from '@mailbag/core';
import type { OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DateTime } from 'luxon';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { SettingEntity } from './settings.entity.js';

/** The name of what holds for the office as a whole. */
export const OFFICE = 'office';

/** What holds for the whole of Mailbag, kept by name. */
@Injectable()
export class SettingsService implements OnModuleInit {
  private officeZone: string | null = null;
  /** Asking for it takes milliseconds, and it does not change while the server runs. */
  private readonly serverLocale = Intl.DateTimeFormat().resolvedOptions().locale;
  private readonly serverZone = DateTime.local().zoneName ?? 'UTC';

  constructor(
    @InjectRepository(SettingEntity) private readonly settings: Repository<SettingEntity>,
    private readonly transactions: Transactions,
  ) {}

  onModuleInit(): Promise<void> {
    return this.readZone();
  }

  async get<T>(name: string): Promise<T | null> {
    return ((await this.settings.findOneBy({ name }))?.value as T | undefined) ?? null;
  }

  async set(name: string, value: unknown): Promise<void> {
    await this.transactions.run((manager) => manager.save(SettingEntity, { name, value }));
    if (name === OFFICE) await this.readZone();
  }

  /** The zone in which days are counted and shown: the office's own, or the server's where none is set (names of the IANA time zone database). */
  get zone(): string {
    return this.officeZone ?? this.serverZone;
  }

  /** How dates and numbers are written out, and where. */
  get place(): { locale: string; zone: string } {
    return { locale: this.serverLocale, zone: this.zone };
  }

  private async readZone(): Promise<void> {
    const zone = (await this.get<{ timeZone?: string }>(OFFICE))?.timeZone;
    this.officeZone = zone && DateTime.local({ zone }).isValid ? zone : null;
  }

  /** Today where the office is. ISO 8601. */
  today(): string {
    return DateTime.now().setZone(this.zone).toISODate()!;
  }

  /** When a day begins where the office is. @param day ISO 8601 @param later days after it @returns ISO 8601 in UTC */
  startOfDay(day: string, later = 0): string {
    const start = DateTime.fromISO(day, { zone: this.zone }).plus({ days: later });
    return start.isValid ? start.toUTC().toISO() : day;
  }

  mailRules(): MailRulesAnswer {
    return {
      retryMinutes: Array.from({ length: MOST_TRIES }, (_, index) => retryDelay(index + 1, config.retryPace) / 60_000),
      timeZone: this.zone,
    };
  }
}
