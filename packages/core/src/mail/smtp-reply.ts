/** What a reply of the receiving server means for a delivery (RFC 5321, 4.2.1). */
export type ReplyMeaning = 'accepted' | 'try-later' | 'refused';

/** @param code three-digit reply code; undefined: no reply came at all, such as a lost connection */
export function replyMeaning(code: number | undefined): ReplyMeaning {
  if (code === undefined) return 'try-later';
  if (code >= 200 && code < 300) return 'accepted';
  return code >= 500 ? 'refused' : 'try-later';
}

/** Minutes to wait before the next try, by the number of tries so far. RFC 5321, 4.5.4.1 asks for at least 30 minutes after the first ones; common practice, no source, for the rest. */
const schedule = [1, 5, 15, 30, 60, 120, 240, 480];
/** Tries after which a delivery is given up. */
export const MOST_TRIES = schedule.length;

/** Milliseconds until the next try. @param tries tries so far, from 1 @param pace 1: as the schedule says; smaller: faster */
export const retryDelay = (tries: number, pace = 1): number => (schedule[Math.min(tries, schedule.length) - 1] ?? 1) * 60_000 * pace;
