import { sendingSeconds } from './sending-time.js';

const none = { perMinute: 0, perHour: 0, perDomainMinute: 0 };
const office = { from: 8 * 60, until: 18 * 60, days: [1, 2, 3, 4, 5] };

test.each([
  ['no limit', 480, none, null, null],
  ['sixty a minute', 480, { ...none, perMinute: 60 }, null, 480],
  ['what fits into one minute', 60, { ...none, perMinute: 60 }, null, 0],
  ['the hour is what counts', 1000, { ...none, perMinute: 60, perHour: 500 }, null, 7200],
  ['the minute is what counts', 1000, { ...none, perMinute: 10, perHour: 3600 }, null, 6000],
  ['within one day of hours', 1000, { ...none, perHour: 500 }, office, 7200],
  // 100 hours of sending, of which a week has 50.
  ['over many days', 50_000, { ...none, perHour: 500 }, office, 2 * 7 * 24 * 3600],
  ['over midnight', 8000, { ...none, perHour: 500 }, { from: 22 * 60, until: 6 * 60, days: [1, 2, 3, 4, 5, 6, 7] }, 48 * 3600],
  ['never', 10, none, { ...office, days: [] }, Infinity],
])('%s', (_, messages, limits, hours, seconds) => {
  expect(sendingSeconds(messages, limits, hours)).toBe(seconds);
});
