import { Injectable, Logger } from '@nestjs/common';
import { principal } from '../platform/principal.js';
import type { Principal } from '../platform/principal.js';
import { Transactions } from '../persistence/transactions.js';
import { historyStore } from '../stores/history.store.js';

/** Milliseconds in which what happens often is told once. */
const OFTEN = 15 * 60_000;

/** Who did what and when, written as it is done. */
@Injectable()
export class History {
  private readonly logger = new Logger('history');
  constructor(private readonly transactions: Transactions) {}

  /** @param subject what it was done to @param detail what else is worth knowing; never a value of a record or a secret @param who left out: who asks */
  async note(action: string, subject: string, detail: string | null = null, who: Principal = principal()): Promise<void> {
    await this.transactions
      .run((sql) => historyStore.add(sql, new Date().toISOString(), who, action, subject, detail))
      .catch((error: unknown) => this.logger.error(error));
  }

  /** As `note`, for what happens often: within a quarter of an hour the same is told once, with what is new added and how often. */
  async noteOften(action: string, subject: string, detail: string, who: Principal = principal()): Promise<void> {
    const since = new Date(Date.now() - OFTEN).toISOString();
    const last = await historyStore.lastSince(this.transactions, since, who, action, subject);
    if (!last) return this.note(action, subject, detail, who);
    const times = Number(/ \((\d+) times\)$/.exec(last.detail ?? '')?.[1] ?? 1) + 1;
    const told = [...new Set([...(last.detail ?? '').replace(/ \(\d+ times\)$/, '').split(', '), ...detail.split(', ')])].filter(Boolean);
    const text = `${told.slice(0, 12).join(', ')} (${times} times)`;
    await this.transactions.run((sql) => historyStore.setDetail(sql, text, last.id)).catch((error: unknown) => this.logger.error(error));
  }
}
