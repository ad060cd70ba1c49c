import { answerFault } from './answer-faults.js';
import { hasShape, isExample, shapeOf, shapeSentence } from './answer-shape.js';
import type { IntakeQuestion } from './intake.js';
import { addedQuestion } from './make-intake.js';

const plot = shapeOf('B-17');

test('an example shows its shape, and it is said in plain words', () => {
  expect(shapeSentence(plot)).toBe('1 letter, “-”, 2 digits');
  expect(shapeSentence(shapeOf('12 AB'))).toBe('2 digits, a space, 2 letters');
  expect(shapeOf('  ').parts).toEqual([]);
});

test.each([
  ['B-17', true],
  ['ü-99', true],
  [' b-17 ', true],
  ['B-1', false],
  ['B-170', false],
  ['BB-17', false],
  ['B17', false],
  ['', false],
])('“%s” beside B-17: %s', (text, is) => expect(hasShape(plot, text)).toBe(is));

test('runs may have a length of their own, and lie so that several ends are possible', () => {
  const loose = { example: 'AB1', parts: [{ what: 'either', text: '', minimum: 1, maximum: 3 }, { what: 'digits', text: '', minimum: 1, maximum: 2 }] as never }; // prettier-ignore
  expect(['A1', 'AB1', 'A12', '123', '12345', '1', 'AB', '123456', 'A-1'].map((text) => hasShape(loose, text))).toEqual([true, true, true, true, true, false, false, false, false]); // prettier-ignore
  expect(shapeSentence(loose)).toBe('1 to 3 letters or digits, 1 to 2 digits');
  expect([isExample(loose), isExample({ ...loose, example: 'AB' })]).toEqual([true, false]);
});

test('every way in which runs can lie is found: held against the pattern language of the platform (ECMA-262), text by text', () => {
  const shapes = [
    [
      ['letters', 0, 2],
      ['either', 1, 2],
      ['digits', 2, 2],
    ],
    [
      ['either', 0, 3],
      ['digits', 1, 1],
      ['either', 0, 1],
    ],
  ] as const;
  const classes = { letters: 'a-z', digits: '0-9', either: 'a-z0-9' };
  let texts = [''];
  for (let length = 0; length < 5; length++) texts = [...texts, ...texts.filter((one) => one.length === length).flatMap((one) => ['a', '1', '-'].map((next) => one + next))]; // prettier-ignore
  for (const runs of shapes) {
    const parts = runs.map(([what, minimum, limit]) => ({ what, text: '', minimum, maximum: limit }));
    const pattern = new RegExp(`^${runs.map(([what, minimum, maximum]) => `[${classes[what]}]{${minimum},${maximum}}`).join('')}$`);
    expect(texts.filter((text) => hasShape({ example: '', parts }, text))).toEqual(texts.filter((text) => pattern.test(text)));
  }
});

describe('answers', () => {
  const asked = (kind: IntakeQuestion['kind'], more: Partial<IntakeQuestion>): IntakeQuestion => ({
    ...addedQuestion('q', 'q', 'Q', kind),
    ...more,
  });
  const fault = (question: IntakeQuestion, answer: string) => {
    const found = answerFault(question, answer, '', '2027-03-01');
    return found && [found.code, found.detail];
  };

  test('of another shape are shown one as it should be', () => {
    const question = asked('text', { shape: plot });
    expect([fault(question, 'B-17'), fault(question, ''), fault(question, '17')]).toEqual([null, null, ['other-shape', 'B-17']]);
  });

  test('that are numbers keep within their bounds, in either way of writing decimals', () => {
    const question = asked('amount', { minimum: '10', maximum: '99.50' });
    expect(['10', '99,50', '9.99', '99.51', '1.000', '1,000.00'].map((text) => fault(question, text))).toEqual([
      null,
      null,
      ['too-small', '10'],
      ['too-great', '99.50'],
      // One thousand, or one: the office looks at it.
      null,
      ['too-great', '99.50'],
    ]);
  });

  test('that are days keep within theirs, and the day of today moves', () => {
    const question = asked('date', { minimum: '2020-01-01', maximum: 'today' });
    expect(['1.1.2020', '1.3.2027', '31.12.2019', '2.3.2027'].map((text) => fault(question, text))).toEqual([
      null,
      null,
      ['too-early', '2020-01-01'],
      ['too-late', '2027-03-01'],
    ]);
  });
});
