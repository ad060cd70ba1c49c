import { partAddress, partLabel, partWords, sumOf } from './course-parts';

const part = (from: string, to: string, made = 0) => ({ from, to, made, sent: 0, bounced: 0, printed: 0, returned: 0 });

test('a bar is called by its day, its week or its month', () => {
  expect(partLabel('days', part('2026-11-30', '2026-11-30'))).toBe('Nov 30');
  expect(partWords('days', part('2026-11-30', '2026-11-30'))).toBe('Monday, November 30');
  expect(partLabel('weeks', part('2026-12-28', '2027-01-03'))).toBe('Dec 28');
  expect(partWords('weeks', part('2026-12-28', '2027-01-03'))).toBe('Dec 28 to January 3, 2027');
  expect(partLabel('year', part('2026-02-01', '2026-02-28'))).toBe('Feb');
  expect(partWords('year', part('2026-02-01', '2026-02-28'))).toBe('February 2026');
});

test('what happened is summed over the parts, and a part opens the copies that changed in it', () => {
  const parts = [part('2026-02-01', '2026-02-28', 3), part('2026-03-01', '2026-03-31', 4)];
  expect(sumOf(parts, 'made')).toBe(7);
  expect(sumOf(parts, 'bounced')).toBe(0);
  expect(partAddress(parts[1]!)).toBe('/ledger?from=2026-03-01&to=2026-03-31');
});
