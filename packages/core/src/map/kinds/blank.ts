import { blankFor } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** Leave blank, on purpose. */
export interface BlankRule {
  kind: 'blank';
}

export const blank: RuleKind<BlankRule> = {
  kind: 'blank',
  order: 50,
  title: 'left blank',
  suits: () => true,
  begin: () => ({ kind: 'blank' }),
  parse: () => ({ kind: 'blank' }),
  readsColumns: () => [],
  evaluate: (_rule, field) => ({ value: blankFor(field) }),
  sentence: () => [{ say: 'left blank on purpose' }],
  rename: (rule) => rule,
};
