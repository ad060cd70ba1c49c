import { t } from '../../words/words.js';
import type { FillRule } from '../registry.js';
import { cannotWork, isCannot, madeText, takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';
import { partOf, readTaken, takenWords } from '../taken.js';
import type { Taken } from '../taken.js';

/** A portion of a value. */
export interface PortionRule {
  kind: 'portion';
  of: FillRule;
  take: Taken;
  /** What happens where the value has no such part: a stop, an empty box, or all of the value. */
  missing: 'stop' | 'blank' | 'whole';
}

export const portion: RuleKind<PortionRule> = {
  kind: 'portion',
  order: 22,
  title: t`a portion of a value`,
  help: t`Takes some characters of a value, a word of it, what stands before or after a mark, or its digits alone.`,
  parts: {
    of: 'the rule whose value it is taken from',
    take: '{ "what": "characters", "from": 3, "to": 5 or null } | { "what": "word", "number": 1, or -1 for the last } | { "what": "all-but-word", "number": 1 or -1 } | { "what": "before" or "after", "mark": "-", "which": "first" or "last" } | { "what": "digits" } | { "what": "letters" }',
    missing: 'where the value has no such part: "stop" (usual), "blank", or "whole" for all of it',
  },
  examples: [
    {
      rule: {
        kind: 'portion',
        of: { kind: 'column', column: 'Plot' },
        take: { what: 'before', mark: '-', which: 'first' },
        missing: 'stop',
      },
      from: { Plot: 'B-12' },
      gives: 'B',
    },
    {
      rule: { kind: 'portion', of: { kind: 'column', column: 'Name' }, take: { what: 'word', number: -1 }, missing: 'stop' },
      from: { Name: 'Ada Maria Quist' },
      gives: 'Quist',
    },
    {
      rule: { kind: 'portion', of: { kind: 'column', column: 'Account' }, take: { what: 'characters', from: 3, to: 4 }, missing: 'stop' },
      from: { Account: 'GB82 WEST' },
      gives: '82',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (_, column, before) => ({
    kind: 'portion',
    of: before ?? { kind: 'column', column: column?.name ?? '' },
    take: { what: 'characters', from: 1, to: 1 },
    missing: 'stop',
  }),
  parse({ of, take, missing = 'stop' }, read) {
    const [whole, taken] = [read(of), readTaken(take)];
    return whole && taken && (missing === 'stop' || missing === 'blank' || missing === 'whole')
      ? { kind: 'portion', of: whole, take: taken, missing }
      : null;
  },
  inner: ({ of }) => [of],
  with: (rule, change) => ({ ...rule, of: change.rule(rule.of) }),
  make({ of, take, missing }, work) {
    const made = work.make(of);
    if (isCannot(made)) return made;
    const text = made.text.trim();
    if (text === '') return madeText('');
    const part = partOf(text, take);
    if (part !== null) return madeText(part);
    if (missing !== 'stop') return madeText(missing === 'whole' ? text : '');
    const why = take.what === 'digits' || take.what === 'letters' ? t`has no ${take.what}` : t`does not have ${takenWords(take)}`;
    return cannotWork(work, of, text, t`${why}; correct it, or say in the rule what is to happen then`);
  },
  sentence: ({ of, take }, inner) => [...inner(of), { say: takenWords(take) }],
};
