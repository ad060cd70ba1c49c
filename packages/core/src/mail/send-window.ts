/** Hours in which mail may leave: minutes of the day and days of the week (1 Monday to 7 Sunday, ISO 8601). `from` after `until` goes over midnight. */
export interface SendWindow {
  from: number;
  until: number;
  days: readonly number[];
}

const DAY = 24 * 60;

/** Whether a window is open at a moment of local time. @param minute of the day @param weekday 1 to 7 */
function isOpen({ from, until, days }: SendWindow, weekday: number, minute: number): boolean {
  if (from === until) return days.includes(weekday);
  if (from < until) return days.includes(weekday) && minute >= from && minute < until;
  // Over midnight the hours after it belong to the day before.
  return (days.includes(weekday) && minute >= from) || (days.includes(weekday === 1 ? 7 : weekday - 1) && minute < until);
}

/** Minutes until the window opens: 0 when it is open, null when it never is. @param now local time */
export function minutesUntilOpen(window: SendWindow | null, now: { weekday: number; minute: number }): number | null {
  if (!window) return 0;
  for (let ahead = 0; ahead <= 7 * DAY; ahead++) {
    const minute = (now.minute + ahead) % DAY;
    const weekday = ((now.weekday - 1 + Math.floor((now.minute + ahead) / DAY)) % 7) + 1;
    if (isOpen(window, weekday, minute)) return ahead;
  }
  return null;
}
