import { t } from '../../words/words.js';
import type { FillRule } from '../registry.js';
import { isCannot, madeText } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** Several rules in a row: the first that gives something is taken. */
export interface FirstRule {
  kind: 'first';
  of: FillRule[];
}

export const first: RuleKind<FirstRule> = {
  kind: 'first',
  order: 29,
  asItStands: true,
  title: t`the first that is not empty`,
  help: t`Tries several in a row and takes the first that is not empty, such as the mobile number or else the one at home.`,
  parts: { of: 'list of rules, tried in order' },
  examples: [
    {
      rule: {
        kind: 'first',
        of: [
          { kind: 'column', column: 'Mobile' },
          { kind: 'column', column: 'Phone' },
        ],
      },
      from: { Mobile: '', Phone: '0351 4960' },
      gives: '0351 4960',
    },
  ],
  suits: () => true,
  begin: (_, column, before) => ({ kind: 'first', of: [before ?? { kind: 'column', column: column?.name ?? '' }] }),
  parse({ of }, read) {
    const own = Array.isArray(of) ? of.map((one) => read(one)) : [];
    return own.length > 0 && own.every((one) => one !== null) ? { kind: 'first', of: own } : null;
  },
  inner: ({ of }) => of,
  with: (rule, change) => ({ ...rule, of: rule.of.map(change.rule) }),
  make({ of }, work) {
    for (const one of of) {
      const made = work.make(one);
      if (isCannot(made) || made.text.trim() !== '') return made;
    }
    return madeText('');
  },
  sentence: ({ of }, inner) => of.flatMap((one, index) => [...(index > 0 ? [{ say: t`or else` }] : []), ...inner(one)]),
};
