import { DateTime } from 'luxon';

/** AFDate_Format(Ex) and AFTime_Format(Ex) of the published PDF script API. `pattern` in its letters: d, m, y, H, h, M, s, t. */
export interface DateFormat {
  kind: 'date' | 'time';
  pattern: string;
}

/** The numbered formats of AFDate_Format and AFTime_Format. */
const numberedDates = [
  'm/d', 'm/d/yy', 'mm/dd/yy', 'mm/yy', 'd-mmm', 'd-mmm-yy', 'dd-mmm-yy', 'yy-mm-dd', 'mmm-yy', 'mmmm-yy', 'mmm d, yyyy', 'mmmm d, yyyy',
  'm/d/yy h:MM tt', 'm/d/yy HH:MM',
]; // prettier-ignore
const numberedTimes = ['HH:MM', 'h:MM tt', 'HH:MM:ss', 'h:MM:ss tt'];

export function recogniseDate({ name, args }: { name: string; args: string[] }): DateFormat | null {
  const [first = ''] = args;
  if (name === 'AFDate_FormatEx' && first) return { kind: 'date', pattern: first };
  if (name === 'AFTime_FormatEx' && first) return { kind: 'time', pattern: first };
  const numbered = name === 'AFDate_Format' ? numberedDates : name === 'AFTime_Format' ? numberedTimes : [];
  const pattern = /^\d+$/.test(first) ? numbered[Number(first)] : undefined;
  return pattern ? { kind: name === 'AFDate_Format' ? 'date' : 'time', pattern } : null;
}

const letters: Record<string, string> = {
  d: 'd', dd: 'dd', ddd: 'ccc', dddd: 'cccc', m: 'L', mm: 'LL', mmm: 'LLL', mmmm: 'LLLL', yy: 'yy', yyyy: 'yyyy', H: 'H', HH: 'HH', h: 'h', hh: 'hh',
  M: 'm', MM: 'mm', s: 's', ss: 'ss', t: 'a', tt: 'a',
}; // prettier-ignore

/** A pattern in its parts: letters of the date library, and text between them. Other characters stand for themselves, a backslash lets a letter do so too. */
const partsOf = (pattern: string): { letter?: string; text?: string }[] =>
  Array.from(
    pattern.matchAll(/\\(.)|(d{1,4}|m{1,4}|y{4}|y{2}|H{1,2}|h{1,2}|M{1,2}|s{1,2}|t{1,2})|([^])/gu),
    ([, escaped, letter, other]) => (letter === undefined ? { text: (escaped ?? other)! } : { letter: letters[letter]! }),
  );

/** The library puts text into apostrophes, so it cannot read one: they are left out of pattern and text alike. */
const withoutApostrophes = (text: string): string => text.replaceAll("'", '');
const readingPattern = (pattern: string): string =>
  partsOf(withoutApostrophes(pattern))
    .map(({ letter, text }) => letter ?? `'${text}'`)
    .join('');

const ISO_DATE = /^\d{4}-\d{2}-\d{2}$/;
const ISO_TIME = /^\d{2}:\d{2}(:\d{2})?$/;
const ISO_BOTH = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(:\d{2}(\.\d+)?)?$/;
/** Notations that can only be meant one way, in the letters of the date library: with the month in words, or the year first or with dots. */
const certain = [
  'd LLLL yyyy',
  'd LLL yyyy',
  'd. LLLL yyyy',
  'LLLL d, yyyy',
  'LLL d, yyyy',
  'd-LLL-yyyy',
  'd.L.yyyy',
  'yyyy/L/d',
  'yyyy.L.d',
];

/** Reads ISO 8601 dates and times, what is already written as the format asks, and dates that can only be meant one way. A time is no date. */
function readDate(text: string, { kind, pattern }: DateFormat): DateTime | null {
  const zone = 'utc';
  const needsTime = kind === 'time';
  if (ISO_BOTH.test(text)) return valid(DateTime.fromISO(text.replace(' ', 'T'), { zone }));
  if (ISO_TIME.test(text)) return needsTime ? valid(DateTime.fromISO(text, { zone })) : null;
  if (ISO_DATE.test(text)) return needsTime && !/[dmy]/.test(pattern) ? null : valid(DateTime.fromISO(text, { zone }));
  const asWritten = valid(DateTime.fromFormat(withoutApostrophes(text), readingPattern(pattern), { zone, locale: 'en' }));
  if (asWritten || needsTime) return asWritten;
  for (const notation of certain) {
    const read = valid(DateTime.fromFormat(text, notation, { zone, locale: 'en' }));
    if (read) return read;
  }
  return null;
}
const valid = (date: DateTime): DateTime | null => (date.isValid ? date : null);

/** Whether a value is a date or time that the format can show. */
export const isDate = (format: DateFormat, text: string): boolean => readDate(text.trim(), format) !== null;

export function formatDate(format: DateFormat, text: string): string {
  const date = readDate(text.trim(), format);
  // Months and days of the week are named in English, as the API's own tables are.
  if (!date) return text;
  const shown = (letter: string): string => {
    const part = date.toFormat(letter, { locale: 'en' });
    return letter === 'a' ? part.toLowerCase() : part;
  };
  return partsOf(format.pattern)
    .map((part) => (part.letter === undefined ? part.text : shown(part.letter)))
    .join('');
}
