import { format, isDateFormat } from 'numfmt';
import type { Cell } from './record.js';
import { trimEnds } from '../text/trim.js';

const DAY_MS = 86_400_000;
/** Days between the two date systems of workbooks (ECMA-376, part 1, 18.17.4.1). */
export const DAYS_TO_1904 = 1462;

/** A serial date as ISO 8601 text, with its time where it has one. @throws RangeError when it is no day of the calendar */
export function serialDate(serial: number, date1904: boolean): string {
  const days = date1904 ? serial + DAYS_TO_1904 : serial < 60 ? serial + 1 : serial;
  const date = new Date(Math.round((days - 25569) * DAY_MS));
  const text = date.toISOString();
  return Number.isInteger(serial) ? text.slice(0, 10) : text.slice(0, 19);
}

interface Shape {
  isGeneral: boolean;
  /** Days are in it, not only hours. */
  isDate: boolean;
  isTime: boolean;
  /** A duration, such as [h]:mm: it has no day that the date system could move. */
  isElapsed: boolean;
}
const shapes = new Map<string, Shape>();
function shapeOf(pattern: string): Shape {
  let shape = shapes.get(pattern);
  if (!shape) {
    const isTime = isDateFormat(pattern) ?? false;
    const bare = pattern.replace(/"[^"]*"?|\\.|\[[^\]]*\]?/g, '');
    shapes.set(
      pattern,
      (shape = {
        isGeneral: /^(General|@|)$/i.test(pattern),
        isTime,
        isDate: isTime && /[dy]/i.test(bare),
        isElapsed: /\[(h+|m+|s+)\]/i.test(pattern),
      }),
    );
  }
  return shape;
}

/** Most digits that a workbook keeps of a number (ECMA-376 stores IEEE 754 doubles). */
export const MOST_DIGITS = 15;
export const significantDigits = (raw: string): number => trimEnds(raw.split(/e/i, 1)[0]!.replace(/\D/g, ''), /0/).length;

/** A number as a sheet shows it where nothing else is said: digits, never an exponent where a whole number has up to 20 of them. */
function plainNumber(raw: string, value: number): string {
  if (Number.isInteger(value) && Math.abs(value) < 1e21) return /^-?\d+$/.test(raw) ? raw : value.toFixed(0);
  return value !== 0 && Math.abs(value) < 1e-7 ? raw : String(Number(value.toPrecision(MOST_DIGITS)));
}

/** Cells that are remembered for each number format: dates, sums and codes come again and again. */
const MOST_REMEMBERED = 4096;
const remembered = new Map<string, Map<string, Cell>>();

/** A number cell as it is shown, and as value: ISO text for dates, text where digits would be lost. @param pattern number format (ECMA-376, part 1, 18.8.31) */
export function numberCell(raw: string, pattern: string, date1904: boolean): Cell {
  const key = date1904 ? `1904 ${pattern}` : pattern;
  let known = remembered.get(key);
  if (!known) remembered.set(key, (known = new Map()));
  let cell = known.get(raw);
  if (!cell) {
    if (known.size >= MOST_REMEMBERED) known.clear();
    known.set(raw, (cell = makeCell(raw, pattern, date1904)));
  }
  return cell;
}

/** A part of a day as a time of day (ISO 8601); null when it is more than a day. */
function clockTime(value: number): string | null {
  const seconds = Math.round(value * 86_400);
  if (value < 0 || seconds >= 86_400) return null;
  const two = (part: number): string => String(part).padStart(2, '0');
  const [hours, minutes, rest] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return `${two(hours)}:${two(minutes)}${rest > 0 ? `:${two(rest)}` : ''}`;
}

function makeCell(raw: string, pattern: string, date1904: boolean): Cell {
  const value = Number(raw);
  if (raw.trim() === '' || !Number.isFinite(value)) return { text: raw, value: raw === '' ? null : raw };
  const shape = shapeOf(pattern);
  const keepsDigits = Math.abs(value) < 1e15;
  if (shape.isGeneral) {
    const text = plainNumber(raw, value);
    return { text, value: keepsDigits ? value : text };
  }
  let text: string;
  try {
    text = format(pattern, date1904 && shape.isDate && !shape.isElapsed ? value + DAYS_TO_1904 : value, { throws: true });
  } catch {
    text = plainNumber(raw, value);
  }
  if (shape.isDate) {
    try {
      return { text, value: serialDate(value, date1904) };
    } catch {
      return { text, value };
    }
  }
  if (shape.isTime) return { text, value: shape.isElapsed ? text : (clockTime(value) ?? text) };
  return { text, value: keepsDigits ? value : text };
}
