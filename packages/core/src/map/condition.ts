import { t } from '../words/words.js';
import { DateTime } from 'luxon';
import { Amount } from '../tables/amount.js';
import { normalised } from './choose.js';
import type { FillRule } from './registry.js';
import type { Cannot, ReadRule, SentencePart, Work } from './rule.js';
import { isCannot } from './rule.js';
import { amountOf, dayOf } from './work-values.js';

/** What is asked of one value. Texts are compared without regard to case and stray spaces; an empty value is neither before nor after, over nor under anything. */
export type Test =
  | { of: FillRule; test: 'is' | 'is-not'; values: string[] }
  | { of: FillRule; test: 'empty' | 'not-empty' }
  | { of: FillRule; test: 'contains' | 'starts-with' | 'ends-with'; text: string }
  /** `day`: in ISO 8601, or `today`, the day on which the batch begins. */
  | { of: FillRule; test: 'before' | 'after'; day: string }
  /** `number`: digits with a full stop. */
  | { of: FillRule; test: 'over' | 'under' | 'at-least' | 'at-most'; number: string }
  /** Numbers or days, both ends included. */
  | { of: FillRule; test: 'between'; from: string; to: string };

/** A question that a record answers with yes or no. */
export type Condition = Test | { all: Condition[] } | { any: Condition[] };

/** Every test by what a person reads of it. */
export const testWords: Readonly<Record<Test['test'], string>> = {
  is: 'is',
  'is-not': t`is not`,
  empty: t`is empty`,
  'not-empty': t`is not empty`,
  contains: 'contains',
  'starts-with': t`starts with`,
  'ends-with': t`ends with`,
  before: t`is before`,
  after: t`is after`,
  over: t`is over`,
  under: t`is under`,
  'at-least': t`is at least`,
  'at-most': t`is at most`,
  between: t`is between`,
};

const isTest = (one: Condition): one is Test => 'test' in one;
const partsOf = (one: Exclude<Condition, Test>): Condition[] => ('all' in one ? one.all : one.any);

/** A test of another kind over the same value, keeping what it can. */
export function beginTest(of: FillRule, test: Test['test'], before?: Test): Test {
  const [first = ''] = before ? operandsOf(before) : [];
  switch (test) {
    case 'is':
    case 'is-not':
      return { of, test, values: before && 'values' in before ? before.values : first === '' ? [] : [first] };
    case 'empty':
    case 'not-empty':
      return { of, test };
    case 'contains':
    case 'starts-with':
    case 'ends-with':
      return { of, test, text: first };
    case 'before':
    case 'after':
      return { of, test, day: isDay(first) ? first : 'today' };
    case 'between':
      return { of, test, from: first, to: first };
    default:
      return { of, test, number: isNumber(first) ? first : '0' };
  }
}

/** What a test compares with. */
const operandsOf = (test: Test): string[] =>
  'values' in test
    ? test.values
    : 'text' in test
      ? [test.text]
      : 'day' in test
        ? [test.day]
        : 'number' in test
          ? [test.number]
          : 'from' in test
            ? [test.from, test.to]
            : [];

const isDay = (text: string): boolean => text === 'today' || (/^\d{4}-\d{2}-\d{2}$/.test(text) && DateTime.fromISO(text).isValid);
const isNumber = (text: string): boolean => /^-?\d{1,40}(\.\d{1,40})?$/.test(text);

/** Whether a record answers yes, or why that cannot be told. */
export function holds(condition: Condition, work: Work): boolean | Cannot {
  if (isTest(condition)) return testHolds(condition, work);
  const wanted = 'any' in condition;
  let failed: Cannot | null = null;
  for (const part of partsOf(condition)) {
    const answer = holds(part, work);
    if (answer === wanted) return wanted;
    if (typeof answer !== 'boolean') failed ??= answer;
  }
  return failed ?? !wanted;
}

function testHolds(test: Test, work: Work): boolean | Cannot {
  switch (test.test) {
    case 'before':
    case 'after':
      return compareDays(test.of, work, (day, of) => (test.test === 'before' ? day < of(test.day) : day > of(test.day)));
    case 'over':
    case 'under':
    case 'at-least':
    case 'at-most':
      return compareAmounts(test.of, work, (amount) => {
        const order = amount.comparedTo(new Amount(test.number));
        return test.test === 'over' ? order > 0 : test.test === 'under' ? order < 0 : test.test === 'at-least' ? order >= 0 : order <= 0;
      });
    case 'between':
      return isDay(test.from)
        ? compareDays(test.of, work, (day, of) => day >= of(test.from) && day <= of(test.to))
        : compareAmounts(test.of, work, (amount) => amount.gte(test.from) && amount.lte(test.to));
    default:
      return textHolds(test, work);
  }
}

function textHolds(
  test: Extract<Test, { values: string[] } | { text: string } | { test: 'empty' | 'not-empty' }>,
  work: Work,
): boolean | Cannot {
  const made = work.make(test.of);
  if (isCannot(made)) return made;
  const text = normalised(made.text);
  switch (test.test) {
    case 'empty':
      return text === '';
    case 'not-empty':
      return text !== '';
    case 'is':
    case 'is-not':
      return test.values.some((value) => normalised(value) === text) === (test.test === 'is');
    default: {
      const wanted = normalised(test.text);
      return test.test === 'contains'
        ? text.includes(wanted)
        : test.test === 'starts-with'
          ? text.startsWith(wanted)
          : text.endsWith(wanted);
    }
  }
}

function compareAmounts(of: FillRule, work: Work, compare: (amount: Amount) => boolean): boolean | Cannot {
  const amount = amountOf(work, of);
  return amount === null ? false : isCannot(amount) ? amount : compare(amount);
}

function compareDays(of: FillRule, work: Work, compare: (day: string, of: (given: string) => string) => boolean): boolean | Cannot {
  const day = dayOf(work, of);
  if (day === null) return false;
  return isCannot(day) ? day : compare(day.toISODate()!, (given) => (given === 'today' ? work.context.today : given));
}

/** The rules whose values are asked about. */
export const rulesIn = (condition: Condition): FillRule[] => (isTest(condition) ? [condition.of] : partsOf(condition).flatMap(rulesIn));

/** The condition with each of its rules changed. */
export function withRulesIn(condition: Condition, change: (rule: FillRule) => FillRule): Condition {
  if (isTest(condition)) return { ...condition, of: change(condition.of) };
  const parts = partsOf(condition).map((part) => withRulesIn(part, change));
  return 'all' in condition ? { all: parts } : { any: parts };
}

/** The condition as a sentence. */
export function conditionSentence(condition: Condition, inner: (rule: FillRule) => SentencePart[]): SentencePart[] {
  if (isTest(condition)) {
    const [first, ...more] = operandsOf(condition);
    const joined = condition.test === 'between' ? 'and' : 'or';
    return [
      ...inner(condition.of),
      { say: testWords[condition.test] },
      ...(first === undefined
        ? 'values' in condition
          ? [{ say: '…' }]
          : []
        : [{ text: first }, ...more.flatMap((text): SentencePart[] => [{ say: joined }, { text }])]),
    ];
  }
  const say = 'all' in condition ? 'and' : 'or';
  return partsOf(condition).flatMap((part, index): SentencePart[] => [...(index > 0 ? [{ say }] : []), ...conditionSentence(part, inner)]);
}

/** How deep groups may stand in groups. */
const DEEPEST = 6;

/** Reads what is given as a condition; null: a part of it is missing or wrong. */
export function readCondition(given: unknown, read: ReadRule, depth = 0): Condition | null {
  const { all, any, of, ...test } = (given ?? {}) as Record<string, unknown>;
  const parts = all ?? any;
  if (parts !== undefined) {
    if (!Array.isArray(parts) || parts.length === 0 || depth >= DEEPEST) return null;
    const own = parts.map((part) => readCondition(part, read, depth + 1));
    if (!own.every((part) => part !== null)) return null;
    return all === undefined ? { any: own } : { all: own };
  }
  const rule = read(of);
  return rule && readTest(rule, test);
}

function readTest(of: FillRule, given: Record<string, unknown>): Test | null {
  const { test, values, text, day, number, from, to } = given;
  switch (test) {
    case 'is':
    case 'is-not':
      return Array.isArray(values) && values.every((value) => typeof value === 'string') ? { of, test, values } : null;
    case 'empty':
    case 'not-empty':
      return { of, test };
    case 'contains':
    case 'starts-with':
    case 'ends-with':
      return typeof text === 'string' ? { of, test, text } : null;
    case 'before':
    case 'after':
      return typeof day === 'string' && isDay(day) ? { of, test, day } : null;
    case 'over':
    case 'under':
    case 'at-least':
    case 'at-most':
      return typeof number === 'string' && isNumber(number) ? { of, test, number } : null;
    case 'between':
      return typeof from === 'string' && typeof to === 'string' && [isDay, isNumber].some((fits) => fits(from) && fits(to))
        ? { of, test, from, to }
        : null;
    default:
      return null;
  }
}
