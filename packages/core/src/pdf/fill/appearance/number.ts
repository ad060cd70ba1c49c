/** A number as PDF writes it: at most three decimals, no exponent, no trailing zeros. */
export function num(value: number): string {
  const rounded = Math.round(value * 1000) / 1000;
  if (rounded === 0 || !Number.isFinite(rounded)) return '0';
  const text = String(rounded);
  return text.includes('e') ? BigInt(Math.round(rounded)).toString() : text;
}
