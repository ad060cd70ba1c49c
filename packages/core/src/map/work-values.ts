import type { DateTime } from 'luxon';
import type { Amount } from '../tables/amount.js';
import { amountIn } from '../tables/amount.js';
import { dayIn } from '../tables/day.js';
import type { FillRule } from './registry.js';
import type { Cannot, Work } from './rule.js';
import { cannotWork, isCannot } from './rule.js';

/** The amount that a rule makes; null: it is empty. */
export function amountOf(work: Work, rule: FillRule): Amount | Cannot | null {
  const made = work.make(rule);
  if (isCannot(made)) return made;
  if (made.text.trim() === '') return null;
  const amount = amountIn(made);
  if (amount === 'either')
    return cannotWork(work, rule, made.text, 'can be read as two different numbers; say in the source how the column writes its decimals');
  return amount ?? cannotWork(work, rule, made.text, 'is not a number; correct it, or choose another column');
}

/** The day that a rule makes; null: it is empty. @param patterns how it may be written, besides as a date in ISO 8601 or with full stops */
export function dayOf(
  work: Work,
  rule: FillRule,
  patterns: readonly string[] = [],
  language = work.context.locale,
): DateTime | Cannot | null {
  const made = work.make(rule);
  if (isCannot(made)) return made;
  if (made.text.trim() === '') return null;
  return (
    dayIn(made, patterns, language) ??
    cannotWork(work, rule, made.text, 'is not a date; correct it, or say how the column writes its dates')
  );
}
