const time = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
const dayTime = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const second = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', second: '2-digit' });
const number = new Intl.NumberFormat();

/** Today as the time, other days with their date. */
export function when(iso: string): string {
  const date = new Date(iso);
  return date.toDateString() === new Date().toDateString() ? time.format(date) : dayTime.format(date);
}
export const atSecond = (iso: string): string => second.format(new Date(iso));
export const fullWhen = (iso: string): string => dayTime.format(new Date(iso));
export const count = (value: number): string => number.format(value);
/** “1 copy”, “2 copies”. */
export const counted = (value: number, one: string, many = `${one}s`): string => `${count(value)} ${value === 1 ? one : many}`;
export const kilobytes = (bytes: number): string =>
  bytes < 1_048_576 ? `${count(Math.max(1, Math.round(bytes / 1024)))} KB` : `${(bytes / 1_048_576).toFixed(1)} MB`;
