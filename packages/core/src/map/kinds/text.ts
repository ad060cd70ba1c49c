import { acceptedValues } from '../../pdf/field.js';
import { chooseValue } from '../choose.js';
import type { RuleKind } from '../rule.js';

/** Fixed text, the same in every copy. For buttons and choices one of the accepted values. */
export interface TextRule {
  kind: 'text';
  text: string;
}

export const text: RuleKind<TextRule> = {
  kind: 'text',
  order: 40,
  title: 'fixed text',
  suits: () => true,
  begin: (field) => ({ kind: 'text', text: acceptedValues(field)[0] ?? '' }),
  parse: ({ text }) => (typeof text === 'string' ? { kind: 'text', text } : null),
  readsColumns: () => [],
  evaluate: (rule, field) => chooseValue(field, rule.text, ''),
  sentence: (rule) => [{ say: 'always' }, { text: rule.text }],
  rename: (rule) => rule,
};
