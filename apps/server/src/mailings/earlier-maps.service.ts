import type { LearnedAnswer, LearnedRule, MailingPlan } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { mailingStore } from '../stores/mailing.store.js';
import { MailingsService } from './mailings.service.js';

/** Mailings that are looked through. */
const MOST_MAILINGS = 40;
/** Rules that are told of one field. */
const MOST_RULES = 3;

/** What this office did with the fields of a packet before. */
@Injectable()
export class EarlierMaps {
  constructor(
    private readonly mailings: MailingsService,
    private readonly transactions: Transactions,
  ) {}

  /** @throws MailbagError not-found */
  async learned(id: number): Promise<LearnedAnswer> {
    const { templates } = await this.mailings.detail(id);
    const earlier = (await mailingStore.plansBeside(this.transactions, id, MOST_MAILINGS)).map(({ name, plan }) => ({
      name,
      maps: (JSON.parse(plan) as Partial<MailingPlan>).maps ?? {},
    }));
    const items = templates.flatMap(({ id: template, fieldList }) =>
      fieldList.flatMap(({ name: field }): LearnedRule[] => {
        const found = earlier.flatMap(({ name: mailing, maps }) =>
          Object.entries(maps).flatMap(([other, map]): LearnedRule[] => {
            const rule = Object.hasOwn(map, field) ? map[field] : undefined;
            return rule ? [{ template, field, rule, mailing, isSameForm: Number(other) === template }] : [];
          }),
        );
        return found.sort((one, other) => Number(other.isSameForm) - Number(one.isSameForm)).slice(0, MOST_RULES);
      }),
    );
    return { items };
  }
}
