/** AFSpecial_Format of the published PDF script API: 0 postal code, 1 the longer one, 2 telephone, 3 social security number, all of the United States. */
export interface SpecialFormat {
  kind: 'special';
  which: 0 | 1 | 2 | 3;
}

export function recogniseSpecial({ name, args }: { name: string; args: string[] }): SpecialFormat | null {
  const which = Number(args[0]);
  return name === 'AFSpecial_Format' && (which === 0 || which === 1 || which === 2 || which === 3) ? { kind: 'special', which } : null;
}

/** How many digits a value may have, by `which`. */
const counts: Readonly<Record<SpecialFormat['which'], readonly number[]>> = { 0: [5], 1: [9], 2: [7, 10], 3: [9] };
const names = ['a postal code', 'a long postal code', 'a telephone number', 'a social security number'];

/** Why a value is not what the format shows, to be put behind a colon; null: it is. */
export function specialFault({ which }: SpecialFormat, text: string): string | null {
  const digits = text.replace(/\D/g, '').length;
  return counts[which].includes(digits) && /^[\d\s().+/-]*$/.test(text)
    ? null
    : `${names[which]} there has ${counts[which].join(' or ')} digits, this has ${digits}`;
}

export function formatSpecial({ which }: SpecialFormat, text: string): string {
  const digits = text.replace(/\D/g, '');
  const has = (count: number): boolean => digits.length === count && /^[\d\s().+/-]*$/.test(text);
  if (which === 0 && has(5)) return digits;
  if (which === 1 && has(9)) return `${digits.slice(0, 5)}-${digits.slice(5)}`;
  if (which === 2 && has(7)) return `${digits.slice(0, 3)}-${digits.slice(3)}`;
  if (which === 2 && has(10)) return `(${digits.slice(0, 3)}) ${digits.slice(3, 6)}-${digits.slice(6)}`;
  if (which === 3 && has(9)) return `${digits.slice(0, 3)}-${digits.slice(3, 5)}-${digits.slice(5)}`;
  return text;
}
