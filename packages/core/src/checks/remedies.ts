import { makesValue } from '../map/registry.js';
import type { FillRule } from '../map/registry.js';
import type { Finding } from './finding.js';

/** What can be done about a value that does not fit. */
export type Remedy = 'smaller' | 'wrap' | 'shorten';

/** What helps against a finding, best first; a text that is cut up for several boxes is mended in the sheet. */
export function remediesOf({ details }: Finding, rule: FillRule | undefined): Remedy[] {
  const { remedies, limit } = details;
  const inner = rule?.kind === 'fitted' ? rule.of : rule;
  if (!inner || !makesValue(inner)) return [];
  return [
    ...(remedies && remedies.smaller !== null ? (['smaller'] as const) : []),
    ...(remedies?.wrap ? (['wrap'] as const) : []),
    ...(limit !== undefined && limit > 0 ? (['shorten'] as const) : []),
  ];
}

/** The size of type in which a value fits, in half points as a person would write them. */
export const smallerType = ({ remedies }: Finding['details']): number => Math.floor((remedies?.smaller ?? 0) * 2) / 2;

/** The rule with a remedy. */
export function remedied(rule: FillRule, remedy: Remedy, { details }: Finding): FillRule {
  const { limit } = details;
  const of = rule.kind === 'fitted' ? rule.of : rule;
  if (remedy === 'shorten') {
    const short: FillRule = of.kind === 'shorten' ? { ...of, to: limit! } : { kind: 'shorten', of, to: limit!, at: 'word', mark: '' };
    return rule.kind === 'fitted' ? { ...rule, of: short } : short;
  }
  const smallest = rule.kind === 'fitted' ? rule.smallest : 5;
  if (remedy === 'wrap') return { kind: 'fitted', of, tooLong: 'wrap', smallest };
  return { kind: 'fitted', of, tooLong: 'shrink', smallest: Math.min(smallest, smallerType(details)) };
}
