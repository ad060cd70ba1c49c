import { count, spokenLocale, t } from '@mailbag/core/words';

const time = new Intl.DateTimeFormat(spokenLocale(), { hour: '2-digit', minute: '2-digit' });
const dayTime = new Intl.DateTimeFormat(spokenLocale(), { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const second = new Intl.DateTimeFormat(spokenLocale(), { hour: '2-digit', minute: '2-digit', second: '2-digit' });
const yearDay = new Intl.DateTimeFormat(spokenLocale(), { day: 'numeric', month: 'short', year: 'numeric' });
const yearTime = new Intl.DateTimeFormat(spokenLocale(), {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});

const megabytes = new Intl.NumberFormat(spokenLocale(), { minimumFractionDigits: 1, maximumFractionDigits: 1 });

const isOfThisYear = (date: Date): boolean => date.getFullYear() === new Date().getFullYear();

/** Today as the time, other days with their date and time, those of other years with their date and year. */
export function when(iso: string): string {
  const date = new Date(iso);
  if (!isOfThisYear(date)) return yearDay.format(date);
  return date.toDateString() === new Date().toDateString() ? time.format(date) : dayTime.format(date);
}
export const atSecond = (iso: string): string => second.format(new Date(iso));
/** The date with its time, and its year where it is not this one. */
export function fullWhen(iso: string): string {
  const date = new Date(iso);
  return (isOfThisYear(date) ? dayTime : yearTime).format(date);
}
/** A span of time as people say it before it begins: “about 8 min”, “about 2 h 10 min”, “about 3 days”. */
export function about(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  if (seconds < 50) return seconds < 5 ? t`a few seconds` : t`about ${count(Math.round(seconds / 5) * 5)} s`;
  if (minutes < 60) return t`about ${count(minutes)} min`;
  const hours = Math.floor(minutes / 60);
  const rest = Math.round((minutes % 60) / 10) * 10;
  if (hours < 48) return rest === 0 || rest === 60 ? t`about ${count(hours + rest / 60)} h` : t`about ${count(hours)} h ${rest} min`;
  return t`about ${count(Math.round(hours / 24))} days`;
}
export const kilobytes = (bytes: number): string =>
  bytes < 1_048_576 ? t`${count(Math.max(1, Math.round(bytes / 1024)))} KB` : t`${megabytes.format(bytes / 1_048_576)} MB`;
