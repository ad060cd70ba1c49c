import type { CourseAnswer, CourseSpan, Happenings } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { DateTime } from 'luxon';
import { Transactions } from '../persistence/transactions.js';
import { SettingsService } from '../settings/settings.service.js';
import { copyEventStore } from '../stores/copy-event.store.js';

/** How many parts each span has, and what one of them is. */
const spans = { days: [21, 'day'], weeks: [16, 'week'], year: [12, 'month'] } as const satisfies Record<CourseSpan, [number, string]>;
/** Which happening each event counts as. */
const counted: Readonly<Record<string, keyof Happenings>> = {
  make: 'made',
  accept: 'sent',
  refuse: 'bounced',
  print: 'printed',
  return: 'returned',
};
/** Days that are kept, counted: those of the longest span. */
const MOST_DAYS = 400;

const none = (): Happenings => ({ made: 0, sent: 0, bounced: 0, printed: 0, returned: 0 });
const add = (to: Happenings, more: Happenings): void => {
  for (const key of Object.keys(to) as (keyof Happenings)[]) to[key] += more[key];
};

/** What happened to copies over the last days, weeks or months of the office. */
@Injectable()
export class Course {
  /** Days that are over change no more, so they are counted once. */
  private readonly past = new Map<string, Happenings>();
  private countedIn = '';

  constructor(
    private readonly transactions: Transactions,
    private readonly settings: SettingsService,
  ) {}

  /** Parts in their order, the last of them not over yet. Weeks begin on Monday (ISO 8601). */
  async over(span: CourseSpan): Promise<CourseAnswer> {
    const { zone } = this.settings;
    const [parts, unit] = spans[span];
    const now = DateTime.now().setZone(zone).startOf(unit);
    const begins = Array.from({ length: parts }, (_, index) => now.minus({ [`${unit}s`]: parts - 1 - index }));
    const days = await this.days(begins[0]!);
    return {
      span,
      parts: begins.map((begin) => {
        const end = begin.plus({ [`${unit}s`]: 1 });
        const sum = none();
        for (let day = begin; day < end; day = day.plus({ days: 1 })) add(sum, days.get(day.toISODate()!) ?? none());
        return { from: begin.toISODate()!, to: end.minus({ days: 1 }).toISODate()!, ...sum };
      }),
    };
  }

  /** What happened on each day since one. */
  private async days(first: DateTime): Promise<ReadonlyMap<string, Happenings>> {
    const { zone } = this.settings;
    if (this.countedIn !== zone) this.past.clear();
    this.countedIn = zone;
    const today = DateTime.now().setZone(zone).startOf('day');
    let open = first;
    while (open < today && this.past.has(open.toISODate()!)) open = open.plus({ days: 1 });
    // Times are kept in UTC, so what belongs to a day is found by the hour, or by the minute where the clock is not set by whole hours.
    const isByHour = [open, today].every(({ offset }) => offset % 60 === 0);
    const rows = await copyEventStore.eventsByTime(this.transactions, this.settings.startOfDay(open.toISODate()!), isByHour ? 13 : 16);
    const found = new Map<string, Happenings>();
    for (let day = open; day <= today; day = day.plus({ days: 1 })) found.set(day.toISODate()!, none());
    for (const { at, event, count } of rows) {
      const day = DateTime.fromISO(isByHour ? `${at}:00Z` : `${at}Z`)
        .setZone(zone)
        .toISODate()!;
      const happenings = found.get(day);
      const key = counted[event];
      if (happenings && key) happenings[key] += count;
    }
    // The day before may still be written to by a clock that was set back a little.
    const yesterday = today.minus({ days: 1 }).toISODate()!;
    for (const [day, happenings] of found) if (day < yesterday) this.past.set(day, happenings);
    for (const day of this.past.keys()) if (this.past.size > MOST_DAYS) this.past.delete(day);
    return new Map([...this.past, ...found]);
  }
}
