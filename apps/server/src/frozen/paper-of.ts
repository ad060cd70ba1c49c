import type { MailingPlan } from '@mailbag/contract';
import type { Column, PostalAddress } from '@mailbag/core';
import { compilePattern, guessPaper } from '@mailbag/core';
import type { RecordPlace } from './message-of.js';
import { dataOf, patternNames } from './message-of.js';

/** Postal addresses of a mailing's records. @throws MailbagError pattern-* */
export function postalPattern(plan: MailingPlan, columns: readonly Column[]): (place: RecordPlace) => PostalAddress {
  const paper = plan.paper ?? guessPaper(plan.message.recipient, columns);
  const names = patternNames(columns);
  const patterns = (['name', 'street', 'postalCode', 'town', 'region', 'country'] as const).map(
    (part) => [part, compilePattern(paper[part], names)] as const,
  );
  return (place) => {
    const data = dataOf(columns, place);
    return Object.fromEntries(patterns.map(([part, pattern]) => [part, pattern.render(data).trim()])) as unknown as PostalAddress;
  };
}
