import { t } from '../../words/words.js';
import { emptyCell } from '../../tables/record.js';
import type { RuleKind } from '../rule.js';

/** Leave blank, on purpose. */
export interface BlankRule {
  kind: 'blank';
}

export const blank: RuleKind<BlankRule> = {
  kind: 'blank',
  order: 50,
  asItStands: true,
  title: t`left blank`,
  help: t`Stays empty on purpose, for a person to fill in by hand.`,
  parts: {},
  examples: [{ rule: { kind: 'blank' }, from: {}, gives: '' }],
  suits: () => true,
  begin: () => ({ kind: 'blank' }),
  parse: () => ({ kind: 'blank' }),
  make: () => emptyCell,
  sentence: () => [{ say: t`left blank on purpose` }],
};
