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

/** The pattern in the letters of the date library. Other characters stand for themselves, a backslash lets a letter do so too. */
function libraryPattern(pattern: string): string {
  return pattern.replace(
    /\\(.)|(d{1,4}|m{1,4}|y{4}|y{2}|H{1,2}|h{1,2}|M{1,2}|s{1,2}|t{1,2})|([A-Za-z'])/g,
    (_, escaped?: string, letter?: string, other?: string) => (letter ? letters[letter]! : `'${escaped ?? other}'`),
  );
}

/** Reads ISO 8601 dates and times, and what is already written as the format asks. */
function readDate(text: string, pattern: string): DateTime | null {
  const isIso = /^\d{4}-\d{2}-\d{2}([T ]\d{2}:\d{2}(:\d{2}(\.\d+)?)?)?$|^\d{2}:\d{2}(:\d{2})?$/.test(text);
  const read = isIso
    ? DateTime.fromISO(text.replace(' ', 'T'), { zone: 'utc' })
    : DateTime.fromFormat(text, libraryPattern(pattern), { zone: 'utc', locale: 'en' });
  return read.isValid ? read : null;
}

export function formatDate({ pattern }: DateFormat, text: string): string {
  const date = readDate(text.trim(), pattern);
  // Months and days of the week are named in English, as the API's own tables are.
  return date ? date.toFormat(libraryPattern(pattern), { locale: 'en' }).replace(/\b(AM|PM)\b/, (half) => half.toLowerCase()) : text;
}
