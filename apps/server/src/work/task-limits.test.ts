import { taskLimits } from './task-limits.js';

test.each(Object.entries(taskLimits))('%s has a lane, an end and a name for whoever waits for it', (name, { lane, seconds, what }) => {
  expect(['batch', 'people', 'visitors', 'letters', 'post', 'care']).toContain(lane);
  expect(seconds).toBeGreaterThan(0);
  // Nobody waits at a screen for longer than that without being told of progress.
  if (lane === 'people') expect(seconds).toBeLessThanOrEqual(300);
  expect(what).toMatch(/^[A-Z]/);
  expect(name).toMatch(/^[a-z]/);
});

test.each([
  ['mail', ['readMail', 'openPost']],
  ['the pages of intakes', ['visitorCopies']],
])('what strangers send by way of %s has a lane of its own, which others do not wait for', (_, names) => {
  const strange = Object.entries(taskLimits).filter(([name]) => names.includes(name));
  const others = Object.entries(taskLimits).filter(([name]) => !names.includes(name));
  expect(strange).toHaveLength(names.length);
  for (const [, { lane }] of strange) expect(others.map(([, other]) => other.lane)).not.toContain(lane);
});
