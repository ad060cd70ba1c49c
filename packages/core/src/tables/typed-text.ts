import type { Cell, ColumnReading } from './record.js';

/** Longest digit string that a number holds without loss. */
const SAFE_DIGITS = 15;

/** A date that exists, as YYYY-MM-DD; null otherwise. */
export function calendarDate(year: number, month: number, day: number): string | null {
  if (!(year >= 1 && year <= 9999)) return null;
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  if (date.getUTCFullYear() !== year || date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return null;
  return date.toISOString().slice(0, 10);
}

/** Three numbers with dots, slashes or hyphens between them: how people type dates. */
const THREE_NUMBERS = /^(\d{1,4})([./-])(\d{1,2})\2(\d{1,4})$/;
export const isDateLike = (text: string): boolean => THREE_NUMBERS.test(text.trim());

/**
 * A date that is certain, as YYYY-MM-DD: ISO 8601, day.month.year with dots, and slashes or hyphens where the order is given.
 * Null for anything else, and for dates that are none. Two-digit years count as 1930 to 2029 (common practice, no source).
 */
export function isoDate(text: string, order?: ColumnReading['dates']): string | null {
  const parts = THREE_NUMBERS.exec(text.trim());
  if (!parts) return null;
  const [, first = '', mark, second = '', third = ''] = parts;
  if (first.length === 4) return mark === '-' || order ? calendarDate(Number(first), Number(second), Number(third)) : null;
  if (third.length !== 4 && !(third.length === 2 && order)) return null;
  const year = third.length === 4 ? Number(third) : Number(third) + (Number(third) < 30 ? 2000 : 1900);
  if (mark === '.' && order !== 'month-first') return calendarDate(year, Number(second), Number(first));
  if (!order) return null;
  return order === 'day-first' ? calendarDate(year, Number(second), Number(first)) : calendarDate(year, Number(first), Number(second));
}

/** Numbers with groups of three or without, by what stands before their decimals. */
const WRITTEN = {
  comma: /^[+-]?(?:\d{1,3}(?:\.\d{3})+|\d+)(?:,\d+)?$/,
  point: /^[+-]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?$/,
};
/** Only a digit or its mark, so that most numbers need not be freed of what stands around them. */
const BARE = /^[+-]?\d[\d.,]*$/;

/** A number that is written out in text; null where it is none or a digit would be lost. */
export function writtenNumber(text: string, decimals: ColumnReading['decimals'] = 'point'): number | null {
  const bare = BARE.test(text) ? text : text.replace(/[\s\u00a0\u202f']/g, '').replace(/^([€$£]|CHF|EUR)|([€$£%]|CHF|EUR)$/g, '');
  if (!WRITTEN[decimals].test(bare)) return null;
  const plain = decimals === 'comma' ? bare.replaceAll('.', '').replace(',', '.') : bare.replaceAll(',', '');
  if (plain.length > SAFE_DIGITS && plain.replace(/\D/g, '').replace(/^0+/, '').length > SAFE_DIGITS) return null;
  return Number(plain);
}

/** The number that a text most likely is: as its column is read, or else with a comma for the decimals. */
export const likelyNumber = (text: string, { decimals }: ColumnReading = {}): number | null =>
  writtenNumber(text.trim(), decimals) ?? writtenNumber(text.trim(), 'comma');

/** Text as it stands in a file, typed: numbers only where no digit would be lost, dates as ISO 8601 text. */
export function typedText(text: string, reading: ColumnReading = {}): Cell {
  const trimmed = text.trim();
  if (trimmed === '') return { text, value: null };
  switch (reading.kind) {
    case undefined:
    case 'yes-no':
      break;
    case 'number':
      return { text, value: writtenNumber(trimmed, reading.decimals) ?? text };
    case 'date':
      return { text, value: isoDate(trimmed, reading.dates) ?? text };
    default:
      return { text, value: text };
  }
  const first = trimmed.charCodeAt(0);
  if ((first >= 48 && first <= 57) || first === 45) {
    if (reading.decimals) {
      const number = writtenNumber(trimmed, reading.decimals);
      if (number !== null && !/^0\d/.test(trimmed)) return { text, value: number };
    } else if (/^-?(0|[1-9]\d{0,14})(\.\d+)?$/.test(trimmed) && trimmed.replace(/\D/g, '').length <= SAFE_DIGITS)
      return { text, value: Number(trimmed) };
    return { text, value: isoDate(trimmed, reading.dates) ?? text };
  }
  if (/^(true|false)$/i.test(trimmed)) return { text, value: trimmed.length === 4 };
  return { text, value: text };
}
