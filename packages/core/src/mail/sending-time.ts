import type { RateLimits } from './rate-limit.js';
import type { SendWindow } from './send-window.js';

const WEEK = 7 * 24 * 60;

/** Minutes of a week in which mail may leave. A window that ends before it begins goes over midnight. */
const openMinutes = ({ from, until, days }: SendWindow): number =>
  days.length * (from === until ? 24 * 60 : until > from ? until - from : 24 * 60 - from + until);

/**
 * Seconds that so many messages take at the limits of a server, spread over the hours in which it may send. Limits of single domains are left out.
 * Null: there is no limit, it goes as fast as the server takes them; Infinity: it never may.
 */
export function sendingSeconds(messages: number, { perMinute, perHour }: RateLimits, hours: SendWindow | null): number | null {
  const each = Math.max(perMinute > 0 ? 60 / perMinute : 0, perHour > 0 ? 3600 / perHour : 0);
  const open = hours === null ? WEEK : openMinutes(hours);
  if (open === 0) return Infinity;
  if (each === 0) return null;
  // What fits into the first minute or hour goes at once.
  const burst = perHour > 0 && 3600 / perHour === each ? perHour : perMinute;
  const needed = messages <= burst ? 0 : messages * each;
  const day = (open / 7) * 60;
  // Less than one day's hours are not spread.
  return needed <= day ? needed : (needed * WEEK) / open;
}
