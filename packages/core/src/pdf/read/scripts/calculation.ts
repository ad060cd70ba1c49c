import type { Statement, Value } from './expression.js';
import { fieldsOf, readProgram } from './expression.js';
import { readNumber } from './number-format.js';
import { run } from './run-program.js';

/** How a field's value is worked out from others. A name stands for its field and for all fields below it. */
export interface Calculation {
  /** AFSimple_Calculate of the published PDF script API by itself, or a program around it. */
  operation: 'sum' | 'product' | 'average' | 'minimum' | 'maximum' | 'formula';
  /** What it reads. */
  fields: string[];
  /** Of a formula. */
  program?: Statement[];
}

const operations: Record<string, Calculation['operation']> = { SUM: 'sum', PRD: 'product', AVG: 'average', MIN: 'minimum', MAX: 'maximum' };
const namesOfFolds = Object.fromEntries(Object.entries(operations).map(([name, operation]) => [operation, name]));

/** The calculation that a script asks for; null when it is beyond working out a value from fields. */
export function recogniseCalculation(script: string): Calculation | null {
  const program = readProgram(script);
  if (!program) return null;
  const fields = fieldsOf(program);
  const [only, ...more] = program;
  if (only?.kind === 'result' && only.to.kind === 'fold' && more.length === 0) return { operation: operations[only.to.name]!, fields };
  return fields.length > 0 ? { operation: 'formula', fields, program } : null;
}

/** Six digits after the point, as the functions of the script API round. */
const PRECISION = 1e6;
const plain = (value: number): string => String(Math.round(value * PRECISION) / PRECISION);

const numberOf = (text: string | null): number | null => (text === null ? null : (readNumber(text) ?? readNumber(text, 2)));

function fold(name: string, texts: readonly (string | null)[]): number {
  const numbers = texts.map((text) => numberOf(text) ?? 0);
  const sum = numbers.reduce((total, one) => total + one, 0);
  if (name === 'SUM') return sum;
  if (name === 'AVG') return numbers.length > 0 ? sum / numbers.length : 0;
  if (name === 'PRD') return numbers.reduce((product, one) => product * one, 1);
  return numbers.length > 0 ? (name === 'MIN' ? Math.min(...numbers) : Math.max(...numbers)) : 0;
}

/**
 * The result as plain text; '' when none of the fields has a value, or what comes out is no number. Values that are no numbers count as 0 in sums and the
 * like, as the API has it.
 */
export function calculate(calculation: Calculation, names: readonly string[], valueOf: (name: string) => string | null): string {
  const below = (fields: readonly string[]): string[] =>
    names.filter((name) => fields.some((field) => name === field || name.startsWith(`${field}.`)));
  if (below(calculation.fields).every((name) => (valueOf(name) ?? '').trim() === '')) return '';
  const value = (name: string): Value => {
    const text = valueOf(name) ?? '';
    return numberOf(text) ?? text;
  };
  const folded = (name: string, fields: readonly string[]): number => Number(plain(fold(name, below(fields).map(valueOf))));
  const result = calculation.program
    ? run(calculation.program, { value, fold: folded })
    : folded(namesOfFolds[calculation.operation]!, calculation.fields);
  if (typeof result === 'number') return Number.isFinite(result) ? plain(result) : '';
  return result === null || typeof result === 'boolean' ? '' : result;
}
