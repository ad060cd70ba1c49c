import { someContext } from '../testing/context.js';
import { typedText } from '../tables/typed-text.js';
import type { Condition, Test } from './condition.js';
import { beginTest, conditionSentence, holds, readCondition, rulesIn, testWords } from './condition.js';
import { parseRule, ruleSentence, workOn } from './registry.js';
import type { FillRule } from './registry.js';
import { rowReader } from './row.js';

const columns = ['Shed', 'Area', 'Born'];
const work = (...texts: string[]) =>
  workOn(rowReader(columns.map((name) => ({ name })))({ row: 2, cells: texts.map((text) => typedText(text)) }), someContext);
const of = (column: string): FillRule => ({ kind: 'column', column });
const [shed, area, born] = columns.map(of) as [FillRule, FillRule, FillRule];
const read = (given: unknown): FillRule | null => parseRule(given).rule;

test.each<[Condition, string[], boolean]>([
  [{ of: shed, test: 'is', values: ['yes', 'y'] }, [' YES '], true],
  [{ of: shed, test: 'is', values: [] }, ['yes'], false],
  [{ of: shed, test: 'is-not', values: ['no'] }, [''], true],
  [{ of: shed, test: 'empty' }, ['  '], true],
  [{ of: shed, test: 'not-empty' }, ['x'], true],
  [{ of: shed, test: 'contains', text: 'Glass' }, ['a glasshouse'], true],
  [{ of: shed, test: 'starts-with', text: 'glass' }, ['a glasshouse'], false],
  [{ of: shed, test: 'ends-with', text: 'HOUSE' }, ['a glasshouse'], true],
  [{ of: born, test: 'before', day: '2000-01-01' }, ['', '', '31.12.1999'], true],
  [{ of: born, test: 'before', day: '2000-01-01' }, ['', '', '2000-01-01'], false],
  [{ of: born, test: 'after', day: 'today' }, ['', '', '2027-01-03'], true],
  [{ of: born, test: 'after', day: 'today' }, ['', '', '2027-01-02'], false],
  [{ of: born, test: 'after', day: 'today' }, ['', '', ''], false],
  [{ of: area, test: 'over', number: '200' }, ['', '200'], false],
  [{ of: area, test: 'at-least', number: '200' }, ['', '200'], true],
  [{ of: area, test: 'under', number: '0.3' }, ['', '0.29'], true],
  [{ of: area, test: 'at-most', number: '-1' }, ['', '-1'], true],
  [{ of: area, test: 'over', number: '-5' }, ['', ''], false],
  [{ of: area, test: 'between', from: '10', to: '20' }, ['', '20'], true],
  [{ of: area, test: 'between', from: '10', to: '20' }, ['', '20.01'], false],
  [{ of: born, test: 'between', from: '2000-01-01', to: 'today' }, ['', '', '2000-01-01'], true],
  [
    {
      all: [
        { of: shed, test: 'not-empty' },
        { of: area, test: 'over', number: '100' },
      ],
    },
    ['x', '50'],
    false,
  ],
  [{ any: [{ of: shed, test: 'empty' }, { all: [{ of: area, test: 'over', number: '1' }] }] }, ['x', '50'], true],
])('%j of %j is %s', (condition, texts, answer) => {
  expect(holds(condition, work(...texts))).toBe(answer);
  expect(readCondition(JSON.parse(JSON.stringify(condition)), read)).toEqual(condition);
  expect(conditionSentence(condition, ruleSentence).length).toBeGreaterThan(1);
  expect(rulesIn(condition).length).toBeGreaterThan(0);
});

test('what cannot be told is said, unless another part of a group settles it', () => {
  const over: Condition = { of: area, test: 'over', number: '1' };
  expect(holds(over, work('', 'big'))).toMatchObject({
    cannot: expect.stringContaining('“big” is not a number') as string,
    column: 'Area',
  });
  expect(holds({ any: [over, { of: shed, test: 'not-empty' }] }, work('x', 'big'))).toBe(true);
  expect(holds({ all: [over, { of: shed, test: 'empty' }] }, work('x', 'big'))).toBe(false);
  expect(holds({ all: [over, { of: shed, test: 'not-empty' }] }, work('x', 'big'))).toMatchObject({ column: 'Area' });
});

test.each([
  [null],
  [{}],
  [{ of: 'Shed' }],
  [{ of: 'Shed', test: 'is' }],
  [{ of: 'Shed', test: 'is', values: [3] }],
  [{ of: 'Shed', test: 'likes', text: 'x' }],
  [{ of: 'Born', test: 'before', day: '2027-02-30' }],
  [{ of: 'Area', test: 'over', number: '1,5' }],
  [{ of: 'Area', test: 'between', from: '10', to: '2027-01-01' }],
  [{ all: [] }],
  [{ any: [{ of: 'Shed', test: 'empty' }, 3] }],
])('what is no condition is refused: %j', (given) => {
  expect(readCondition(given, (one) => (typeof one === 'string' ? of(one) : read(one)))).toBeNull();
});

test('a test of another kind keeps what it can', () => {
  for (const test of Object.keys(testWords) as Test['test'][]) {
    const begun = beginTest(area, test);
    expect(begun.test).toBe(test);
    const again = beginTest(area, 'is', { of: area, test: 'over', number: '12' });
    expect(again).toEqual({ of: area, test: 'is', values: ['12'] });
  }
});
