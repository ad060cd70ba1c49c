import { t } from '../../words/words.js';
import type { Amount } from '../../tables/amount.js';
import { amountValue } from '../../tables/amount.js';
import type { Digits } from '../shown-amount.js';
import { shownAmount } from '../shown-amount.js';
import { WORDS_DIGITS, numberWords, wordsLanguages } from '../../text/number-words.js';
import type { WordsLanguage } from '../../text/number-words.js';
import type { FillRule } from '../registry.js';
import { cannotWork, isCannot, madeText, takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';
import { isRounding, rounded } from '../rounding.js';
import type { Rounding } from '../rounding.js';
import { amountOf } from '../work-values.js';

/** A number in words; with a currency as on a cheque: “twelve euros 50/100”. */
export interface Words {
  words: WordsLanguage;
  currency: string | null;
}

/** A number, rounded and shown as a person wants it. */
export interface NumberRule {
  kind: 'number';
  of: FillRule;
  /** Null: as many decimals as there are. */
  round: Rounding | null;
  show: Digits | Words;
}

const isCurrency = (given: unknown): given is string | null => given === null || (typeof given === 'string' && /^[A-Z]{3}$/.test(given));
const isLanguage = (given: unknown): given is string | null => {
  if (given === null) return true;
  try {
    return typeof given === 'string' && Intl.getCanonicalLocales(given).length === 1;
  } catch {
    return false;
  }
};

/** An amount in words; null: it is too long to be written out. */
function amountWords(amount: Amount, { words, currency }: Words): string | null {
  const whole = amount.trunc();
  if (whole.abs().toFixed().length > WORDS_DIGITS) return null;
  const minus = amount.isNegative() && whole.isZero() && !amount.isZero() ? `${numberWords('-1', words).split(' ')[0]} ` : '';
  if (currency === null) return amount.isInteger() ? numberWords(whole.toFixed(), words) : numberWords(amount.toFixed(), words);
  const name = new Intl.NumberFormat(words, {
    style: 'currency',
    currency,
    currencyDisplay: 'name',
    minimumFractionDigits: 0,
    maximumFractionDigits: 0,
  })
    .formatToParts(Number(whole.abs().toFixed()))
    .find(({ type }) => type === 'currency')!.value;
  const cents = amount.abs().minus(whole.abs()).times(100).toFixed(0).padStart(2, '0');
  // German counts “eins” and pays “ein Euro”.
  const count = numberWords(whole.toFixed(), words).replace(words === 'de' ? /eins$/ : /(?!)/, 'ein');
  return `${minus}${count} ${name}${cents === '00' ? '' : ` ${cents}/100`}`;
}

export const number: RuleKind<NumberRule> = {
  kind: 'number',
  order: 24,
  title: t`a number`,
  help: t`Rounds a number and writes it as you want it: decimals, thousands, currency, percent, or in words.`,
  parts: {
    of: 'the rule that gives the number',
    round: '{ "decimals": 2, "how": "half-up" or "half-even" }; null for as many decimals as there are',
    show: `{ "thousands": true, "currency": "EUR" or null, "percent": "no", "as-it-is" or "times-100", "sign": "minus", "always", "brackets" or "never", "language": "de" or null } | { "words": ${wordsLanguages.map((one) => `"${one}"`).join(', ')}, "currency": "EUR" or null }`,
  },
  examples: [
    {
      rule: {
        kind: 'number',
        of: { kind: 'column', column: 'Rent' },
        round: { decimals: 2, how: 'half-up' },
        show: { thousands: true, currency: null, percent: 'no', sign: 'minus', language: 'de' },
      },
      from: { Rent: '1234.5' },
      gives: '1.234,50',
    },
    {
      rule: {
        kind: 'number',
        of: { kind: 'column', column: 'Rent' },
        round: { decimals: 2, how: 'half-up' },
        show: { words: 'en-GB', currency: 'EUR' },
      },
      from: { Rent: '1234.5' },
      gives: 'one thousand two hundred and thirty-four euros 50/100',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (_, column, before) => ({
    kind: 'number',
    of: before ?? { kind: 'column', column: column?.name ?? '' },
    round: { decimals: 2, how: 'half-up' },
    show: { thousands: true, currency: null, percent: 'no', sign: 'minus', language: null },
  }),
  parse({ of, round = null, show }, read) {
    const whole = read(of);
    if (!whole || !(round === null || isRounding(round))) return null;
    const rounding = round && { decimals: round.decimals, how: round.how };
    const given = (show ?? {}) as Record<string, unknown>;
    const { words, currency = null, thousands = false, percent = 'no', sign = 'minus', language = null } = given;
    if (!isCurrency(currency)) return null;
    if (words !== undefined)
      return wordsLanguages.includes(words as WordsLanguage)
        ? { kind: 'number', of: whole, round: rounding, show: { words: words as WordsLanguage, currency } }
        : null;
    if (typeof thousands !== 'boolean' || !isLanguage(language)) return null;
    if (percent !== 'no' && percent !== 'as-it-is' && percent !== 'times-100') return null;
    if (sign !== 'minus' && sign !== 'always' && sign !== 'brackets' && sign !== 'never') return null;
    return { kind: 'number', of: whole, round: rounding, show: { thousands, currency, percent, sign, language } };
  },
  inner: ({ of }) => [of],
  with: (rule, change) => ({ ...rule, of: change.rule(rule.of) }),
  make(rule, work) {
    const amount = amountOf(work, rule.of);
    if (amount === null) return madeText('');
    if (isCannot(amount)) return amount;
    const own = rounded(amount, rule.round);
    if ('words' in rule.show) {
      const text = amountWords(own, rule.show);
      return text === null
        ? cannotWork(work, rule.of, own.toFixed(), t`is too long to be written in words; show it in digits`)
        : madeText(text);
    }
    // Of 5 % that stand as 0.05 two decimals are those of the 5.
    const isPercent = rule.show.percent === 'times-100';
    const shown = isPercent ? rounded(amount.times(100), rule.round) : own;
    const decimals = rule.round?.decimals ?? shown.decimalPlaces();
    const text = shownAmount(isPercent ? shown.dividedBy(100) : shown, rule.show, work.context.locale, decimals);
    return { text, value: amountValue(own) };
  },
  sentence: ({ of, round, show }, inner) => [
    ...inner(of),
    {
      say:
        'words' in show
          ? t`in words`
          : [round ? t`with ${round.decimals} decimals` : t`as a number`, show.percent === 'no' ? '' : 'percent', show.currency ?? '']
              .filter(Boolean)
              .join(', '),
    },
  ],
};
