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
/** A span of time as people say it before it begins: “about 8 min”, “about 2 h 10 min”, “about 3 days”. */
export function about(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  if (seconds < 50) return seconds < 5 ? 'a few seconds' : `about ${count(Math.round(seconds / 5) * 5)} s`;
  if (minutes < 60) return `about ${count(minutes)} min`;
  const hours = Math.floor(minutes / 60);
  const rest = Math.round((minutes % 60) / 10) * 10;
  if (hours < 48) return rest === 0 || rest === 60 ? `about ${count(hours + rest / 60)} h` : `about ${count(hours)} h ${rest} min`;
  return `about ${count(Math.round(hours / 24))} days`;
}
export const kilobytes = (bytes: number): string =>
  bytes < 1_048_576 ? `${count(Math.max(1, Math.round(bytes / 1024)))} KB` : `${(bytes / 1_048_576).toFixed(1)} MB`;
