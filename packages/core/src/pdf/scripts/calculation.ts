import { callOf, unescaped } from './call.js';
import { readNumber } from './number-format.js';

/** AFSimple_Calculate of the published PDF script API. A name stands for its field and for all fields below it. */
export interface Calculation {
  operation: 'sum' | 'product' | 'average' | 'minimum' | 'maximum';
  fields: string[];
}

const operations: Record<string, Calculation['operation']> = { SUM: 'sum', PRD: 'product', AVG: 'average', MIN: 'minimum', MAX: 'maximum' };

/** The calculation that a script asks for; null when it is none of the known ones. */
export function recogniseCalculation(script: string): Calculation | null {
  const call = callOf(script);
  const operation = call?.name === 'AFSimple_Calculate' ? operations[call.args[0]?.toUpperCase() ?? ''] : undefined;
  if (!call || !operation || call.args.length < 2) return null;
  const list = call.args[1]!;
  const quoted = [...list.matchAll(/"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'/g)].map((one) => unescaped(one[1] ?? one[2]!));
  const fields = /^(new\s+Array|\[)/.test(list)
    ? quoted
    : list
        .split(',')
        .map((one) => one.trim())
        .filter(Boolean);
  return fields.length > 0 ? { operation, fields } : null;
}

/** Twelve digits after the point are enough for any form and hide what binary fractions add. */
const plain = (value: number): string => String(Number(value.toFixed(12)));

/** The result as plain text; null when none of the fields has a value. Values that are no numbers count as 0, as the API has it. */
export function calculate(
  { operation, fields }: Calculation,
  names: readonly string[],
  valueOf: (name: string) => string | null,
): string | null {
  const wanted = names.filter((name) => fields.some((field) => name === field || name.startsWith(`${field}.`)));
  const texts = wanted.map(valueOf);
  if (texts.every((text) => text === null || text.trim() === '')) return null;
  const numbers = texts.map((text) => (text === null ? 0 : (readNumber(text) ?? readNumber(text, 2) ?? 0)));
  const sum = numbers.reduce((total, one) => total + one, 0);
  if (operation === 'sum') return plain(sum);
  if (operation === 'average') return plain(sum / numbers.length);
  if (operation === 'product') return plain(numbers.reduce((product, one) => product * one, 1));
  return plain(operation === 'minimum' ? Math.min(...numbers) : Math.max(...numbers));
}
