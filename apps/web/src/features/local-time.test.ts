import { fromLocalTime, localTime, movedToZone } from './local-time';

// Offsets as the IANA time zone database has them.
test('a time is told and taken in the zone that is meant, in summer and in winter', () => {
  expect(localTime('2027-01-12T08:00:00.000Z', 'Europe/Berlin')).toBe('2027-01-12T09:00');
  expect(localTime('2027-07-12T08:00:00.000Z', 'Europe/Berlin')).toBe('2027-07-12T10:00');
  expect(fromLocalTime('2027-07-12T10:00', 'Europe/Berlin')).toBe('2027-07-12T08:00:00.000Z');
  expect(fromLocalTime('2027-01-12T09:00', 'America/New_York')).toBe('2027-01-12T14:00:00.000Z');
  expect([localTime(null, 'Europe/Berlin'), fromLocalTime('', 'Europe/Berlin')]).toEqual(['', null]);
});

test('without a zone it is where the person is, there and back', () => {
  expect(fromLocalTime(localTime('2027-01-12T08:00:00.000Z'))).toBe('2027-01-12T08:00:00.000Z');
});

test('another zone leaves the time of day as it was said', () => {
  expect(movedToZone('2027-01-12T08:00:00.000Z', 'Europe/Berlin', 'America/New_York')).toBe('2027-01-12T14:00:00.000Z');
  expect(movedToZone(null, 'Europe/Berlin', 'UTC')).toBeNull();
});
