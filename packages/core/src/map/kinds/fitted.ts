import { t } from '../../words/words.js';
import type { FitRule, TooLong } from '../../pdf/value.js';
import type { FillRule } from '../registry.js';
import { takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** What happens with a value that is too long for its box. It hangs on the box, so it is no part of other rules. */
export interface FittedRule {
  kind: 'fitted';
  of: FillRule;
  tooLong: TooLong;
  /** Smallest type size, points. */
  smallest: number;
}

/** Sizes that can be asked for, points. */
export const [LEAST_TYPE, MOST_TYPE] = [3, 12];
const ways: Record<TooLong, string> = {
  shrink: t`in smaller type`,
  wrap: 'in smaller type, then on further lines',
  cut: t`in smaller type, then cut off after the last character that fits`,
  clip: t`in the size of the form, cut off at the edge of the box`,
};

export const fitOf = ({ tooLong, smallest }: FittedRule): FitRule => ({ tooLong, smallest });

export const fitted: RuleKind<FittedRule> = {
  kind: 'fitted',
  order: 150,
  asItStands: true,
  outermost: true,
  title: t`a value, made to fit its box`,
  help: t`Says what happens where a value is too long: smaller type, further lines in the same box, or an end.`,
  parts: {
    of: 'the rule whose value it is',
    tooLong:
      '"shrink" for smaller type, "wrap" for smaller type and then further lines, "cut" for smaller type and then as many characters as fit, "clip" for neither',
    smallest: `the smallest type size in points, ${LEAST_TYPE} to ${MOST_TYPE}; left out: 5`,
  },
  examples: [
    {
      rule: { kind: 'fitted', of: { kind: 'column', column: 'Remarks' }, tooLong: 'wrap', smallest: 4 },
      from: { Remarks: 'The gate sticks in winter.' },
      gives: 'The gate sticks in winter.',
    },
  ],
  suits: (field) => !takesOneOf(field) && field.kind === 'text',
  begin: (_, column, before) => ({
    kind: 'fitted',
    of: before ?? { kind: 'column', column: column?.name ?? '' },
    tooLong: 'wrap',
    smallest: 5,
  }),
  parse({ of, tooLong, smallest = 5 }, read) {
    const whole = read(of);
    const size = typeof smallest === 'number' && smallest >= LEAST_TYPE && smallest <= MOST_TYPE ? smallest : null;
    return whole && size !== null && typeof tooLong === 'string' && Object.hasOwn(ways, tooLong)
      ? { kind: 'fitted', of: whole, tooLong: tooLong as TooLong, smallest: size }
      : null;
  },
  inner: ({ of }) => [of],
  with: (rule, change) => ({ ...rule, of: change.rule(rule.of) }),
  make: ({ of }, work) => work.make(of),
  evaluate: ({ of }, field, work) => work.evaluate(of, field),
  sentence: ({ of, tooLong, smallest }, inner) => [
    ...inner(of),
    { say: tooLong === 'clip' ? ways.clip : t`if too long ${ways[tooLong]}, down to ${smallest} pt` },
  ],
};
