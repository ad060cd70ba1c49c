import { t } from '../../words/words.js';
import { DateTime } from 'luxon';
import { shownDay } from '../../tables/day.js';
import type { FillRule } from '../registry.js';
import { cannotWork, isCannot, madeText, takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';
import { dayOf } from '../work-values.js';

/** A date, moved and shown as a person wants it; or the age in full years on another day. */
export interface DateRule {
  kind: 'date';
  of: FillRule;
  /** How the value writes its dates, tried in order, where that is not clear by itself. Patterns of the Unicode CLDR (UTS 35). */
  read: string[];
  /** What is added, months and years first; where a month has no such day its last is taken. Below 0: taken off. */
  add: { years: number; months: number; days: number };
  /** A pattern of the Unicode CLDR (UTS 35); or the age on a day. */
  show: { pattern: string } | { ageOn: FillRule };
  /** BCP 47; null: as the office writes. */
  language: string | null;
}

const NOTHING = { years: 0, months: 0, days: 0 };

/** Text that a pattern has in it is quoted; any letter outside of that has to be one that stands for a part of the date. */
const PATTERN = /^(?:'[^']*'|[GyMLdEcQqwW]|[^A-Za-z'])+$/;
export const isDatePattern = (pattern: string): boolean => pattern.length <= 80 && PATTERN.test(pattern);

function languageFrom(given: unknown): string | null | undefined {
  if (given === null || given === undefined) return null;
  if (typeof given !== 'string') return undefined;
  try {
    return Intl.getCanonicalLocales(given)[0];
  } catch {
    return undefined;
  }
}

function addFrom(given: unknown): DateRule['add'] | null {
  const { years = 0, months = 0, days = 0 } = (given ?? {}) as Record<string, unknown>;
  return [years, months, days].every((one) => Number.isInteger(one) && Math.abs(one as number) <= 100_000)
    ? { years: years as number, months: months as number, days: days as number }
    : null;
}

const moved = ({ years, months, days }: DateRule['add']): string =>
  (
    [
      [years, 'year'],
      [months, 'month'],
      [days, 'day'],
    ] as const
  )
    .filter(([count]) => count !== 0)
    .map(([count, unit]) => `${count > 0 ? 'plus' : 'minus'} ${Math.abs(count)} ${unit}${Math.abs(count) === 1 ? '' : 's'}`)
    .join(', ');

export const date: RuleKind<DateRule> = {
  kind: 'date',
  order: 23,
  title: t`a date`,
  help: t`Reads a date, adds or takes off days, months or years, and writes it as you pick it; or gives the age on a day.`,
  parts: {
    of: 'the rule that gives the date',
    read: 'list of patterns in which the value writes its dates (UTS 35), such as "d/M/yyyy"; empty where it is clear',
    add: '{ "years", "months", "days" }, each a whole number',
    show: '{ "pattern": "d MMMM yyyy" } | { "ageOn": the rule that gives the day }',
    language: 'of the names of months and days (BCP 47), such as "de"; null for that of the office',
  },
  examples: [
    {
      rule: {
        kind: 'date',
        of: { kind: 'column', column: 'Born' },
        read: [],
        add: NOTHING,
        show: { pattern: 'd. MMMM yyyy' },
        language: 'de',
      },
      from: { Born: '1984-03-05' },
      gives: '5. März 1984',
    },
    {
      rule: {
        kind: 'date',
        of: { kind: 'column', column: 'Start' },
        read: ['d/M/yyyy'],
        add: { years: 0, months: 1, days: 0 },
        show: { pattern: 'dd/MM/yyyy' },
        language: null,
      },
      from: { Start: '31/1/2027' },
      gives: '28/02/2027',
    },
    {
      rule: {
        kind: 'date',
        of: { kind: 'column', column: 'Born' },
        read: [],
        add: NOTHING,
        show: { ageOn: { kind: 'text', text: '2027-03-04' } },
        language: null,
      },
      from: { Born: '1984-03-05' },
      gives: '42',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (_, column, before) => ({
    kind: 'date',
    of: before ?? { kind: 'column', column: column?.name ?? '' },
    read: [],
    add: NOTHING,
    show: { pattern: 'd MMMM yyyy' },
    language: null,
  }),
  parse({ of, read: patterns = [], add, show, language }, read) {
    const [whole, more, own] = [read(of), addFrom(add), languageFrom(language)];
    if (!whole || !more || own === undefined || !Array.isArray(patterns)) return null;
    if (!patterns.every((one) => typeof one === 'string' && isDatePattern(one))) return null;
    const { pattern, ageOn } = (show ?? {}) as { pattern?: unknown; ageOn?: unknown };
    const day = ageOn === undefined ? null : read(ageOn);
    const shown = day ? { ageOn: day } : typeof pattern === 'string' && isDatePattern(pattern) ? { pattern } : null;
    return shown && { kind: 'date', of: whole, read: patterns as string[], add: more, show: shown, language: own };
  },
  inner: ({ of, show }) => ('ageOn' in show ? [of, show.ageOn] : [of]),
  with: (rule, change) => ({
    ...rule,
    of: change.rule(rule.of),
    show: 'ageOn' in rule.show ? { ageOn: change.rule(rule.show.ageOn) } : rule.show,
  }),
  make(rule, work) {
    const language = rule.language ?? work.context.locale;
    const day = dayOf(work, rule.of, rule.read, language);
    if (day === null) return madeText('');
    if (isCannot(day)) return day;
    const { years, months, days } = rule.add;
    const then = day.plus({ years, months }).plus({ days });
    const text = then.isValid ? then.toISODate()! : '';
    if (!/^\d{4}-/.test(text)) return cannotWork(work, rule.of, day.toISODate()!, t`is moved out of the calendar; change what is added`);
    if ('pattern' in rule.show) return { text: shownDay(then, rule.show.pattern, language), value: text };
    const on = dayOf(work, rule.show.ageOn);
    if (isCannot(on ?? {})) return on as Extract<typeof on, { cannot: string }>;
    if (on === null) return { cannot: t`The day on which the age is asked is empty.`, column: work.columns(rule.show.ageOn), text: '' };
    const age = ageOn(then, on as DateTime);
    return age < 0
      ? cannotWork(work, rule.of, then.toISODate()!, t`lies after ${(on as DateTime).toISODate()}, so there is no age; correct it`)
      : { text: String(age), value: age };
  },
  sentence: (rule, inner) => [
    ...inner(rule.of),
    ...(moved(rule.add) === '' ? [] : [{ say: moved(rule.add) }]),
    ...('pattern' in rule.show
      ? [{ say: 'as' }, { text: shownDay(DateTime.fromISO('2027-02-01', { zone: 'utc' }), rule.show.pattern, rule.language ?? 'en') }]
      : [{ say: t`as the age on` }, ...inner(rule.show.ageOn)]),
  ],
};

/** Full years between two days; someone born on 29 February is a year older on 1 March (common practice, no source). */
function ageOn(born: DateTime, on: DateTime): number {
  const years = on.year - born.year;
  return on.month > born.month || (on.month === born.month && on.day >= born.day) ? years : years - 1;
}
