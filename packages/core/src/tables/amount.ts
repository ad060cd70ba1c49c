import { Decimal } from 'decimal.js';
import type { Cell } from './record.js';

/** Digits that calculations keep: far more than any amount on a form has. */
export const Amount = Decimal.clone({ precision: 60, toExpNeg: -60, toExpPos: 60, rounding: Decimal.ROUND_HALF_UP });
export type Amount = Decimal;

/** What stands around the digits of an amount: currencies, signs of percent, spaces. */
const AROUND = /^(?:[€$£]|CHF|EUR)|(?:[€$£%]|CHF|EUR)$/g;

function written(bare: string, group: string, point: string): Amount | null {
  const pattern = new RegExp(`^[+-]?(\\d{1,3}(\\${group}\\d{3})+|\\d+)(\\${point}\\d+)?$`);
  return pattern.test(bare) ? new Amount(bare.replaceAll(group, '').replace(point, '.').replace('+', '')) : null;
}

/**
 * The amount in a cell: its typed value, or its text in either way of writing decimals.
 * @returns 'either' where both ways give another amount, as in “1.234”; null: it is no number
 */
export function amountIn({ text, value }: Cell): Amount | 'either' | null {
  if (typeof value === 'number') return Number.isFinite(value) ? new Amount(value) : null;
  const bare = text.replace(/[\s\u00a0\u202f']/g, '').replace(AROUND, '');
  if (bare.length > 60) return null;
  const [point, comma] = [written(bare, ',', '.'), written(bare, '.', ',')];
  if (point && comma && !point.equals(comma)) return 'either';
  return point ?? comma;
}

/** An amount as the typed value of a cell: text with a full stop where a number does not hold all of its digits. */
export function amountValue(amount: Amount): number | string {
  const number = amount.toNumber();
  return new Amount(number).equals(amount) ? number : amount.toFixed();
}
