import { callOf } from './call.js';
import type { Calculation } from './calculation.js';
import { recogniseCalculation } from './calculation.js';
import type { DateFormat } from './date-format.js';
import { formatDate, recogniseDate } from './date-format.js';
import type { NumberFormat } from './number-format.js';
import { formatNumber, recogniseNumber } from './number-format.js';
import type { SpecialFormat } from './special-format.js';
import { formatSpecial, recogniseSpecial } from './special-format.js';

export type { Calculation };
/** How a field shows its value, as the functions of the published PDF script API define it. No script is ever run. */
export type FormatScript = NumberFormat | DateFormat | SpecialFormat;

/** The format that a script asks for; null when it is none of the known ones. */
export function recogniseFormat(script: string): FormatScript | null {
  const call = callOf(script);
  return call && (recogniseNumber(call) ?? recogniseDate(call) ?? recogniseSpecial(call));
}

export { recogniseCalculation };

/** The value as the field shows it. A value that the format cannot be applied to is shown as it is, never lost. */
export function applyFormat(format: FormatScript, value: string): string {
  if (value.trim() === '') return value;
  if ('pattern' in format) return formatDate(format, value);
  return 'which' in format ? formatSpecial(format, value) : formatNumber(format, value);
}
