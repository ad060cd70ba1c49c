import { callOf } from './call.js';
import type { Calculation } from './calculation.js';
import { recogniseCalculation } from './calculation.js';
import type { DateFormat } from './date-format.js';
import { formatDate, isDate, recogniseDate } from './date-format.js';
import type { NumberFormat } from './number-format.js';
import { formatNumber, isRed, readNumber, recogniseNumber } from './number-format.js';
import type { SpecialFormat } from './special-format.js';
import { formatSpecial, recogniseSpecial, specialFault } from './special-format.js';

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

/** Why a format cannot show a value, to be put behind a colon; null: it can. */
export function formatFault(format: FormatScript, value: string): string | null {
  const text = value.trim();
  if (text === '') return null;
  if ('pattern' in format) return isDate(format, text) ? null : `it is shown as a ${format.kind} (${format.pattern}), and this is none`;
  if ('which' in format) return specialFault(format, text);
  return readNumber(text.replace(/%\s*$/, ''), format.separators, format.currency) === null
    ? 'it is shown as a number, and this is none'
    : null;
}

/** The colour operator that a format gives a value instead of the field's own; null: none. */
export const formatColour = (format: FormatScript, value: string): string | null =>
  'separators' in format && isRed(format, value) ? '1 0 0 rg' : null;
