import type { Amount } from '../tables/amount.js';

/** How a number stands in digits. */
export interface Digits {
  /** Of thousands, as the language groups them. */
  thousands: boolean;
  /** ISO 4217; null: none. */
  currency: string | null;
  /** Percent: the value is 5 for 5 %, or 0.05. */
  percent: 'no' | 'as-it-is' | 'times-100';
  /** `always`: plus and minus; `brackets`: an amount below 0 stands in brackets, as in accounts; `never`: the sign is left out. */
  sign: 'minus' | 'always' | 'brackets' | 'never';
  /** BCP 47; null: as the office writes. */
  language: string | null;
}

/** What stands before the decimals, by language; null: its digits are others than 0 to 9, or its minus is another sign. */
const points = new Map<string, string | null>();
function pointOf(language: string): string | null {
  let point = points.get(language);
  if (point === undefined) {
    const written = new Intl.NumberFormat(language, { useGrouping: false, minimumFractionDigits: 1 }).format(-10.5);
    points.set(language, (point = /^-10(\D)5$/.exec(written)?.[1] ?? null));
  }
  return point;
}

/** Digits and nothing else, as a language writes its decimals: what `shownAmount` gives, without the time that it takes. */
export function bareAmount(amount: Amount, language: string, decimals: number): string {
  const point = pointOf(language);
  return point === null ? shownAmount(amount, bareDigits, language, decimals) : amount.toFixed(decimals).replace('.', point);
}

/** Digits and nothing else. */
export const bareDigits: Digits = { thousands: false, currency: null, percent: 'no', sign: 'minus', language: null };

const formats = new Map<string, Intl.NumberFormat>();

/** An amount in the digits of a language, exact however many there are. @param locale where the digits name no language. BCP 47 */
export function shownAmount(amount: Amount, digits: Digits, locale: string, decimals: number): string {
  const { thousands, currency, percent, sign, language } = digits;
  const key = [language ?? locale, decimals, thousands, currency, percent, sign].join(' ');
  let format = formats.get(key);
  if (!format) {
    format = new Intl.NumberFormat(language ?? locale, {
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
      useGrouping: thousands,
      ...(percent !== 'no' ? { style: 'percent' } : currency ? { style: 'currency', currency } : {}),
      ...(sign === 'always' ? { signDisplay: 'exceptZero' } : sign === 'never' ? { signDisplay: 'never' } : {}),
    });
    formats.set(key, format);
  }
  const inBrackets = sign === 'brackets' && amount.isNegative() && !amount.isZero();
  const shown = percent === 'as-it-is' ? amount.dividedBy(100) : amount;
  const text = format.format((inBrackets ? shown.abs() : shown).toFixed() as Intl.StringNumericLiteral);
  return inBrackets ? `(${text})` : text;
}
