import { t } from '../../words/words.js';
import { Amount, amountValue } from '../../tables/amount.js';
import type { FillRule } from '../registry.js';
import { bareAmount } from '../shown-amount.js';
import { isRounding, rounded } from '../rounding.js';
import type { Rounding } from '../rounding.js';
import { isCannot, madeText, takesOneOf } from '../rule.js';
import type { Cannot, RuleKind, SentencePart, Work } from '../rule.js';
import { amountOf } from '../work-values.js';

export const operations = ['sum', 'difference', 'product', 'quotient', 'minimum', 'maximum'] as const;
export type Operation = (typeof operations)[number];

/** What is calculated with: a number in digits with a full stop, or what a rule gives. */
export type Operand = { number: string } | FillRule;
export const isNumberOperand = (one: Operand): one is { number: string } => 'number' in one && !('kind' in one);

/** A calculation in decimals, exact to the cent. */
export interface ArithmeticRule {
  kind: 'arithmetic';
  do: Operation;
  /** From left to right: 9, 3, 2 as a difference are 4. */
  of: Operand[];
  /** Null: left as it is. */
  round: Rounding | null;
  /** What an empty value is: a stop, or left out (in a sum it is 0, in a product 1). Where all are empty the field is left blank. */
  empty: 'stop' | 'left-out';
}

const NUMBER = /^-?\d{1,40}(\.\d{1,40})?$/;
export const isPlainNumber = (text: string): boolean => NUMBER.test(text);

const signs: Record<Operation, string> = {
  sum: 'plus',
  difference: 'minus',
  product: 'times',
  quotient: t`divided by`,
  minimum: 'or',
  maximum: 'or',
};

function calculated(operation: Operation, [first, ...rest]: readonly [Amount, ...Amount[]]): Amount | null {
  switch (operation) {
    case 'sum':
      return rest.reduce((sum, one) => sum.plus(one), first);
    case 'difference':
      return rest.reduce((sum, one) => sum.minus(one), first);
    case 'product':
      return rest.reduce((sum, one) => sum.times(one), first);
    case 'quotient':
      return rest.some((one) => one.isZero()) ? null : rest.reduce((sum, one) => sum.dividedBy(one), first);
    case 'minimum':
      return Amount.min(first, ...rest);
    case 'maximum':
      return Amount.max(first, ...rest);
  }
}

/** What changes nothing; null: it is left out altogether. */
const neutral: Record<Operation, Amount | null> = {
  sum: new Amount(0),
  difference: new Amount(0),
  product: new Amount(1),
  quotient: new Amount(1),
  minimum: null,
  maximum: null,
};

/** The amounts, with the columns that were empty. */
function amountsOf({ of, do: operation }: ArithmeticRule, work: Work): { amounts: Amount[]; empty: string[] } | Cannot {
  const amounts: Amount[] = [];
  const empty: string[] = [];
  for (const one of of) {
    if (isNumberOperand(one)) {
      amounts.push(new Amount(one.number));
      continue;
    }
    const amount = amountOf(work, one);
    if (amount === null) {
      empty.push(work.columns(one));
      const none = neutral[operation];
      if (none) amounts.push(none);
    } else if (isCannot(amount)) return amount;
    else amounts.push(amount);
  }
  return { amounts, empty };
}

const wordsOf = (one: Operand, inner: (rule: FillRule) => SentencePart[]): SentencePart[] =>
  isNumberOperand(one) ? [{ text: one.number }] : inner(one);

export const arithmetic: RuleKind<ArithmeticRule> = {
  kind: 'arithmetic',
  order: 25,
  title: t`a calculation`,
  help: t`Adds, subtracts, multiplies or divides columns and numbers, or takes the smallest or largest; exact to the cent.`,
  parts: {
    do: operations.map((one) => `"${one}"`).join(', '),
    of: 'list of rules and of { "number": "12.5" }, worked through from left to right',
    round: '{ "decimals": 2, "how": "half-up" or "half-even" }; null for no rounding',
    empty: 'an empty value is a "stop" (usual), or "left-out"',
  },
  examples: [
    {
      rule: {
        kind: 'arithmetic',
        do: 'product',
        of: [{ kind: 'column', column: 'Area' }, { number: '0.35' }],
        round: { decimals: 2, how: 'half-up' },
        empty: 'stop',
      },
      from: { Area: '187.5' },
      gives: '65.63',
    },
    {
      rule: {
        kind: 'arithmetic',
        do: 'sum',
        of: [
          { kind: 'column', column: 'Rent' },
          { kind: 'column', column: 'Water' },
          { kind: 'column', column: 'Shed' },
        ],
        round: null,
        empty: 'left-out',
      },
      from: { Rent: '0.1', Water: '0.2', Shed: '' },
      gives: '0.3',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (_, column, before) => ({
    kind: 'arithmetic',
    do: 'sum',
    of: [before ?? { kind: 'column', column: column?.name ?? '' }, { number: '0' }],
    round: { decimals: 2, how: 'half-up' },
    empty: 'stop',
  }),
  parse({ do: operation, of, round = null, empty = 'stop' }, read) {
    if (!operations.includes(operation as Operation) || !Array.isArray(of) || of.length === 0) return null;
    if (!(round === null || isRounding(round)) || (empty !== 'stop' && empty !== 'left-out')) return null;
    const own = of.map((one): Operand | null => {
      const { number, kind } = (typeof one === 'object' && one !== null ? one : {}) as { number?: unknown; kind?: unknown };
      if (number === undefined || kind !== undefined) return read(one);
      return typeof number === 'string' && isPlainNumber(number) ? { number } : null;
    });
    return own.every((one) => one !== null)
      ? {
          kind: 'arithmetic',
          do: operation as Operation,
          of: own,
          round: round && { decimals: round.decimals, how: round.how },
          empty,
        }
      : null;
  },
  inner: ({ of }) => of.flatMap((one) => (isNumberOperand(one) ? [] : [one])),
  with: (rule, change) => ({ ...rule, of: rule.of.map((one) => (isNumberOperand(one) ? one : change.rule(one))) }),
  make(rule, work) {
    const found = amountsOf(rule, work);
    if (isCannot(found)) return found;
    const { amounts, empty } = found;
    // A record that has none of the values has nothing to calculate: its numbers alone would look like a result.
    if (empty.length > 0 && empty.length === rule.of.filter((one) => !isNumberOperand(one)).length) return madeText('');
    if (empty.length > 0 && rule.empty === 'stop')
      return {
        cannot: t`${empty.map((one) => `“${one}”`).join(', ')} is empty; fill it in, or say in the rule that an empty value is left out.`,
        column: empty[0]!,
        text: '',
      };
    const [first, ...rest] = amounts;
    if (!first) return madeText('');
    const result = calculated(rule.do, [first, ...rest]);
    if (!result)
      return {
        cannot: t`Nothing can be divided by 0; correct the value, or make it a case of its own.`,
        column: work.columns(rule),
        text: '0',
      };
    const own = rounded(result, rule.round);
    return {
      text: bareAmount(own, work.context.locale, rule.round?.decimals ?? own.decimalPlaces()),
      value: amountValue(own),
    };
  },
  sentence: (rule, inner) => [
    ...(rule.do === 'minimum' || rule.do === 'maximum' ? [{ say: rule.do === 'minimum' ? t`smallest of` : t`largest of` }] : []),
    ...rule.of.flatMap((one, index) => [...(index > 0 ? [{ say: signs[rule.do] }] : []), ...wordsOf(one, inner)]),
    ...(rule.round ? [{ say: t`to ${rule.round.decimals} decimals` }] : []),
  ],
};
