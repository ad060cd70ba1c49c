import type { MailingPlan } from '@mailbag/contract';
import { MailbagError, parseCondition, parseCopyCount, parseRule, unknownChecks } from '@mailbag/core';

/**
 * Reads what a plan says in rules, conditions, counts and checks, and leaves in it what was understood.
 * @throws MailbagError rule-unknown, condition-unknown, count-unknown, check-unknown
 */
export function readRules(plan: MailingPlan): void {
  for (const [template, map] of Object.entries(plan.maps))
    for (const [field, rule] of Object.entries(map)) {
      const { rule: read, fault } = parseRule(rule);
      if (!read) throw new MailbagError('rule-unknown', { field, template: Number(template), why: fault });
      map[field] = read;
    }
  for (const [template, given] of Object.entries(plan.conditions ?? {})) {
    const condition = parseCondition(given);
    if (!condition) throw new MailbagError('condition-unknown', { template: Number(template) });
    plan.conditions![template] = condition;
  }
  for (const [template, given] of Object.entries(plan.counts ?? {})) {
    const count = parseCopyCount(given);
    if (!count) throw new MailbagError('count-unknown', { template: Number(template) });
    plan.counts![template] = count;
  }
  const unknown = unknownChecks(plan.checks ?? {});
  if (unknown !== null) throw new MailbagError('check-unknown', { check: unknown });
}
