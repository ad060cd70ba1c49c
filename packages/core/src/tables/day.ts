import { DateTime } from 'luxon';
import type { Cell } from './record.js';
import { isoDate } from './typed-text.js';

/**
 * The day in a cell: its typed value, a certain date in its text, or one that is written as a pattern says.
 * @param patterns of luxon, whose letters are those of the Unicode CLDR (UTS 35)
 * @param language BCP 47, for names of months and days
 * @returns null: it is none
 */
export function dayIn({ text, value }: Cell, patterns: readonly string[] = [], language = 'en'): DateTime | null {
  const known = [value, text].map((one) => (typeof one === 'string' ? /^\d{4}-\d{2}-\d{2}(?=$|[T ])/.exec(one.trim())?.[0] : undefined));
  const iso = known[0] ?? (patterns.length === 0 ? (known[1] ?? isoDate(text)) : null);
  if (iso) return valid(DateTime.fromISO(iso, { zone: 'utc' }));
  for (const pattern of patterns) {
    const day = valid(DateTime.fromFormat(text.trim(), pattern, { zone: 'utc', locale: language }));
    if (day) return day;
  }
  return patterns.length === 0 ? null : dayIn({ text, value });
}

const valid = (day: DateTime): DateTime | null => (day.isValid ? day : null);

/** Ways of writing a date that are tried on samples, the surer ones first. Common practice, no source. */
const WRITTEN = [
  'yyyy-MM-dd',
  'd.M.yyyy',
  'd.M.yy',
  'd/M/yyyy',
  'M/d/yyyy',
  'd-M-yyyy',
  'M-d-yyyy',
  'd/M/yy',
  'M/d/yy',
  'd MMMM yyyy',
  'd MMM yyyy',
  'd. MMMM yyyy',
  'd. MMM yyyy',
  'MMMM d, yyyy',
  'MMM d, yyyy',
  'd-MMM-yyyy',
  'd-MMM-yy',
  'yyyyMMdd',
  'ddMMyyyy',
  'yyyy/M/d',
  'M/yyyy',
  'MMMM yyyy',
] as const;

const reads = (pattern: string, sample: string, language: string): boolean =>
  DateTime.fromFormat(sample.trim(), pattern, { zone: 'utc', locale: language }).isValid;

/** Patterns that read every one of the samples. */
export const patternsReading = (samples: readonly string[], language: string): string[] =>
  samples.length === 0
    ? []
    : WRITTEN.filter(
        (pattern) =>
          samples.every((sample) => reads(pattern, sample, language)) &&
          // Two digits of a year also read four.
          !(/y/.test(pattern) && !pattern.includes('yyyy') && samples.some((sample) => /\d{4}/.test(sample))),
      );

/** Ways in which a date can be shown, to be picked by their look. */
export const shownPatterns = [
  'd MMMM yyyy',
  'd MMM yyyy',
  'dd/MM/yyyy',
  'MM/dd/yyyy',
  'dd.MM.yyyy',
  'd. MMMM yyyy',
  'yyyy-MM-dd',
  'MMMM d, yyyy',
  'cccc, d MMMM yyyy',
  'ddMMyyyy',
  'MMMM yyyy',
  'MM/yy',
  'd',
  'dd',
  'M',
  'MM',
  'MMMM',
  'yyyy',
  'yy',
] as const;

/** A day as a pattern shows it. @param language BCP 47 */
export const shownDay = (day: DateTime, pattern: string, language: string): string => day.setLocale(language).toFormat(pattern);
