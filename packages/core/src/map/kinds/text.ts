import { t } from '../../words/words.js';
import { acceptedValues } from '../../pdf/field.js';
import { madeText } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** Fixed text, the same in every copy. For buttons and choices one of the accepted values. */
export interface TextRule {
  kind: 'text';
  text: string;
}

export const text: RuleKind<TextRule> = {
  kind: 'text',
  order: 40,
  asItStands: true,
  title: t`fixed text`,
  help: t`The same in every copy.`,
  parts: { text: 'the text; for a tick box, radio button or menu one of the values that it accepts' },
  examples: [{ rule: { kind: 'text', text: 'in full' }, from: {}, gives: 'in full' }],
  suits: () => true,
  begin: (field) => ({ kind: 'text', text: acceptedValues(field)[0] ?? '' }),
  parse: ({ text }) => (typeof text === 'string' ? { kind: 'text', text } : null),
  make: (rule) => madeText(rule.text),
  sentence: (rule) => [{ say: 'always' }, { text: rule.text }],
};
