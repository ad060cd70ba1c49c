import type { CourseAnswer, CourseSpan, Happenings } from '@mailbag/contract';
import { spokenLocale, t } from '@mailbag/core/words';

type Part = CourseAnswer['parts'][number];
const at = (day: string): Date => new Date(`${day}T12:00:00`);
const format = (options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat => new Intl.DateTimeFormat(spokenLocale(), options);
const day = format({ day: 'numeric', month: 'short' });
const fullDay = format({ weekday: 'long', day: 'numeric', month: 'long' });
const dayOfYear = format({ day: 'numeric', month: 'long', year: 'numeric' });
const month = format({ month: 'short' });
const fullMonth = format({ month: 'long', year: 'numeric' });

/** What stands below a bar. */
export const partLabel = (span: CourseSpan, { from }: Part): string => (span === 'year' ? month : day).format(at(from));
/** What a bar is about, in full. */
export function partWords(span: CourseSpan, { from, to }: Part): string {
  if (span === 'days') return fullDay.format(at(from));
  return span === 'year' ? fullMonth.format(at(from)) : t`${day.format(at(from))} to ${dayOfYear.format(at(to))}`;
}
/** What happened over all parts. */
export const sumOf = (parts: readonly Part[], key: keyof Happenings): number => parts.reduce((sum, part) => sum + part[key], 0);
/** The copies that changed in a part. */
export const partAddress = ({ from, to }: Part): string => `/ledger?from=${from}&to=${to}`;
