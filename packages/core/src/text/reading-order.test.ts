import { inReadingOrder } from './reading-order.js';

const ordered = (texts: string[]): string[] => inReadingOrder(texts, (text) => text);
test('letters without regard to case and marks, numbers by their value', () => {
  expect(ordered(['A-10', 'Ölund', 'a-9', 'Oak', 'Zoë', 'Öland', 'zoe'])).toEqual(['a-9', 'A-10', 'Oak', 'Öland', 'Ölund', 'Zoë', 'zoe']);
  expect(ordered(['x 100000000000000000000', 'x 99999999999999999999', 'x 007', 'x 6'])).toEqual([
    'x 6',
    'x 007',
    'x 99999999999999999999',
    'x 100000000000000000000',
  ]);
});
test('as the collation alone would order them, whatever the script (Unicode Collation Algorithm, UTS 10)', () => {
  // Lehmer (Park and Miller, 1988), so that a failure can be seen again.
  let state = 77;
  const next = (below: number): number => (state = (state * 48_271) % 2_147_483_647) % below;
  const pieces = ['a', 'B', 'ß', 'ø', 'Ł', 'é', 'e\u0301', '-', ' ', '12', '3', '0', 'ж', 'Ω', '中', '’', 'ç', 'æ', 'İ'];
  const texts = Array.from({ length: 3000 }, () => Array.from({ length: 1 + next(5) }, () => pieces[next(pieces.length)]).join(''));
  const collator = new Intl.Collator('en', { sensitivity: 'base', numeric: true });
  expect(ordered(texts)).toEqual([...texts].sort(collator.compare));
});
