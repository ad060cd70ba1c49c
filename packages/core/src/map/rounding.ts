import { Amount } from '../tables/amount.js';

/** To how many decimals, and where a half goes: up, away from 0; or to the even neighbour (IEEE 754-2019, 4.3: roundTiesToAway, roundTiesToEven). */
export interface Rounding {
  decimals: number;
  how: 'half-up' | 'half-even';
}

export const MOST_DECIMALS = 20;

export const isRounding = (given: unknown): given is Rounding => {
  const { decimals, how } = (given ?? {}) as Record<string, unknown>;
  return (
    Number.isInteger(decimals) &&
    (decimals as number) >= 0 &&
    (decimals as number) <= MOST_DECIMALS &&
    (how === 'half-up' || how === 'half-even')
  );
};

/** @param rounding null: left as it is, to the digits that a form can show */
export const rounded = (amount: Amount, rounding: Rounding | null): Amount =>
  rounding
    ? amount.toDecimalPlaces(rounding.decimals, rounding.how === 'half-up' ? Amount.ROUND_HALF_UP : Amount.ROUND_HALF_EVEN)
    : amount.toDecimalPlaces(MOST_DECIMALS, Amount.ROUND_HALF_EVEN);
