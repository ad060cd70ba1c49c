import { t } from '../../words/words.js';
import { DateTime } from 'luxon';
import { madeText } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** What can be told of a copy beside its record. */
export const copyFacts = {
  today: t`today’s date`,
  batch: t`the number of the batch`,
  number: t`a running number`,
  count: t`how many copies there are`,
  code: t`the copy code`,
} as const;
export type CopyFact = keyof typeof copyFacts;

/** Something of the copy itself. `today` is the day on which the batch begins, so that a copy made again is the same. */
export interface CopyFactRule {
  kind: 'copy-fact';
  fact: CopyFact;
}

export const copyFact: RuleKind<CopyFactRule> = {
  kind: 'copy-fact',
  order: 35,
  title: t`date, number or code of the copy`,
  help: t`Today’s date (the day on which the batch begins), the number of the batch, a running number, or the copy code.`,
  parts: { fact: Object.keys(copyFacts).map((one) => `"${one}"`).join(', ') }, // prettier-ignore
  examples: [
    { rule: { kind: 'copy-fact', fact: 'today' }, from: {}, gives: '02/01/2027' },
    { rule: { kind: 'copy-fact', fact: 'number' }, from: {}, gives: '1' },
  ],
  suits: (field) => field.kind === 'text',
  begin: () => ({ kind: 'copy-fact', fact: 'today' }),
  parse: ({ fact }) => (typeof fact === 'string' && Object.hasOwn(copyFacts, fact) ? { kind: 'copy-fact', fact: fact as CopyFact } : null),
  make({ fact }, { context }) {
    switch (fact) {
      case 'today': {
        const { today: value, locale } = context;
        return {
          text: DateTime.fromISO(value, { zone: 'utc', locale }).toLocaleString({ day: '2-digit', month: '2-digit', year: 'numeric' }),
          value,
        };
      }
      case 'batch':
        return { text: String(context.batch), value: context.batch };
      case 'number':
        return { text: String(context.number), value: context.number };
      case 'count': {
        // A batch from before it was counted tells no more than this copy.
        const count = context.count ?? context.number;
        return { text: String(count), value: count };
      }
      case 'code':
        return madeText(context.code);
    }
  },
  sentence: ({ fact }) => [{ say: copyFacts[fact] }],
};
