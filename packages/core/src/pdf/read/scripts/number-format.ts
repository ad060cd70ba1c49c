/** AFNumber_Format and AFPercent_Format of the published PDF script API. */
export interface NumberFormat {
  kind: 'number' | 'percent';
  decimals: number;
  /** 0 `1,234.56`, 1 `1234.56`, 2 `1.234,56`, 3 `1234,56`, 4 `1'234.56`. */
  separators: number;
  /** 0 minus, 1 red, 2 brackets, 3 red brackets. */
  negative: number;
  currency: string;
  currencyFirst: boolean;
}

export function recogniseNumber({ name, args }: { name: string; args: string[] }): NumberFormat | null {
  const [decimals = 0, separators = 0, negative = 0] = args.slice(0, 3).map(Number);
  const isSound = Number.isInteger(decimals) && decimals >= 0 && decimals <= 20 && separators >= 0 && separators <= 4;
  if (name === 'AFPercent_Format' && isSound && args.length >= 2) {
    return { kind: 'percent', decimals, separators, negative: 0, currency: '', currencyFirst: args[2] === 'true' };
  }
  if (name !== 'AFNumber_Format' || !isSound || args.length < 4) return null;
  return { kind: 'number', decimals, separators, negative: negative || 0, currency: args[4] ?? '', currencyFirst: args[5] === 'true' };
}

/** A number as people and programs write it, in plain notation or with the separators of the format; null: none. */
export function readNumber(text: string, separators = 0, currency = ''): number | null {
  let bare = text.trim();
  const isBracketed = /^\(.*\)$/.test(bare);
  if (isBracketed) bare = bare.slice(1, -1);
  if (currency.trim()) bare = bare.replace(currency.trim(), '');
  bare = bare.replace(/[\s\u00a0\u202f]|^\p{Sc}|\p{Sc}$/gu, '').replace(/\u2212/g, '-');
  const isNegative = isBracketed || /^-|-$/.test(bare);
  bare = bare.replace(/^[-+]|-$/g, '');
  // Plain notation is what records hold; it wins over the separators of the format.
  if (!/^\d+(\.\d+)?$/.test(bare)) {
    const [group, point] = separators === 2 || separators === 3 ? ['.', ','] : separators === 4 ? ["'", '.'] : [',', '.'];
    const pattern = new RegExp(`^(\\d{1,3}(\\${group}\\d{3})+|\\d*)(\\${point}\\d+)?$`);
    if (!pattern.test(bare) || bare === '') return null;
    bare = bare.replaceAll(group!, '').replace(point!, '.');
  }
  const value = Number(bare);
  return Number.isFinite(value) ? (isNegative ? -value : value) : null;
}

/** Decimals of a number rounded half away from zero, as people do: 1.005 to two decimals is 1.01. */
function rounded(value: number, decimals: number): string {
  const shifted = Math.round(Number(`${value}e${decimals}`));
  // Further digits than a number holds would be those of its binary form.
  const held = Math.max(0, Math.min(decimals, 15 - Math.ceil(Math.log10(Math.abs(value) + 1))));
  const [whole = '', fraction = ''] = (
    Number.isFinite(shifted) && Math.abs(shifted) < 1e21 ? Number(`${shifted}e-${decimals}`).toFixed(held) : value.toFixed(held)
  ).split('.');
  return decimals === 0 ? whole : `${whole}.${fraction.padEnd(decimals, '0')}`;
}

/** Digits with a mark between each three, counted from the end. */
function grouped(digits: string, mark: string): string {
  const groups: string[] = [];
  for (let end = digits.length; end > 0; end -= 3) groups.unshift(digits.slice(Math.max(0, end - 3), end));
  return groups.join(mark);
}

/** Whether a format shows a number in red: styles 1 and 3, negative. */
export function isRed(format: NumberFormat, text: string): boolean {
  const value = readNumber(text, format.separators, format.currency);
  return format.kind === 'number' && (format.negative === 1 || format.negative === 3) && value !== null && value < 0;
}

export function formatNumber(format: NumberFormat, text: string): string {
  const value = readNumber(text.replace(/%\s*$/, ''), format.separators, format.currency);
  if (value === null) return text;
  const isPercent = format.kind === 'percent' && !/%\s*$/.test(text);
  const [whole = '', fraction] = rounded(Math.abs(isPercent ? value * 100 : value), format.decimals).split('.');
  const [group, point] = [
    [',', '.'],
    ['', '.'],
    ['.', ','],
    ['', ','],
    ["'", '.'],
  ][format.separators]!;
  let shown = grouped(whole, group!) + (fraction ? point + fraction : '');
  if (format.kind === 'percent') shown = format.currencyFirst ? `%${shown}` : `${shown}%`;
  else shown = format.currencyFirst ? format.currency + shown : shown + format.currency;
  const isZero = /^[0.,']*$/.test(shown.replace(format.currency, '').replace('%', ''));
  if (value >= 0 || isZero) return shown;
  // Red by itself says that a number is negative (style 1).
  return format.negative >= 2 ? `(${shown})` : format.negative === 1 ? shown : `-${shown}`;
}
