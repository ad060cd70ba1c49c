import { fromLocalTime, localTime } from './local-time';

test('a time is shown where the person is, and comes back as the same moment', () => {
  const iso = '2027-03-28T00:30:00.000Z';
  const at = new Date(iso);
  const two = (number: number): string => String(number).padStart(2, '0');
  expect(localTime(iso)).toBe(
    `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`,
  );
  expect(fromLocalTime(localTime(iso))).toBe(iso);
});

test('no time is no text, and no text no time', () => {
  expect([localTime(null), fromLocalTime('')]).toEqual(['', null]);
});
