import type { IntakePlan } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { Transactions } from '../persistence/transactions.js';
import { intakeStore } from '../stores/intake.store.js';

/** What was published of an intake: a page, and what makes copies of its answers. It never changes. */
export interface Edition {
  id: number;
  intakeId: number;
  plan: IntakePlan;
  frozen: FrozenMailing;
}

/** Editions that are kept read. */
const MOST_KEPT = 20;

/** What was published of intakes, read once. */
@Injectable()
export class Editions {
  private readonly cache = new Map<number, Edition>();
  constructor(private readonly transactions: Transactions) {}

  /** @throws MailbagError not-found */
  async byId(id: number): Promise<Edition> {
    const known = this.cache.get(id);
    if (known) return known;
    const row = await intakeStore.edition(this.transactions, id);
    if (!row) throw new MailbagError('not-found', { what: t`page` });
    const edition = {
      id,
      intakeId: row.intakeId,
      plan: JSON.parse(row.plan) as IntakePlan,
      frozen: JSON.parse(row.frozen) as FrozenMailing,
    };
    this.cache.set(id, edition);
    if (this.cache.size > MOST_KEPT) this.cache.delete(this.cache.keys().next().value!);
    return edition;
  }

  /** What is published under a word. @throws MailbagError not-found, intake-not-published */
  async ofWord(word: string): Promise<Edition> {
    const intakeId = await intakeStore.idOfWord(this.transactions, word);
    if (intakeId === undefined) throw new MailbagError('not-found', { what: t`page` });
    const last = await intakeStore.lastEdition(this.transactions, intakeId);
    // That there is something under the word which is not published yet is nobody's business.
    if (!last) throw new MailbagError('not-found', { what: t`page` });
    return this.byId(last.id);
  }

  /** The edition in which somebody began, if it is one of what is published under a word. @throws MailbagError not-found */
  async begun(word: string, id: number): Promise<Edition> {
    const [now, begun] = [await this.ofWord(word), await this.byId(id)];
    if (begun.intakeId !== now.intakeId) throw new MailbagError('not-found', { what: t`page` });
    return begun;
  }
}
