import { placesFor } from './find-places';

const names = (text: string, isAdministrator = true): string[] => placesFor(text, isAdministrator).map(({ name }) => name);

test('actions and settings are found by the beginnings of their words, in any order', () => {
  expect(names('new mailing')).toEqual(['Begin a mailing']);
  expect(names('mail beg')).toEqual(['Begin a mailing']);
  expect(names('bounce')).toContain('Bounces');
  expect(names('retention')).toEqual(['Retention']);
  expect(placesFor('people', true)).toEqual([{ name: 'People', detail: 'Settings', to: '/settings/people' }]);
});

test('a place is found by its name, before what begins there', () => {
  expect(names('ledger')[0]).toBe('Ledger');
  expect(placesFor('mailings', true)).toEqual([{ name: 'Mailings', detail: 'Place', to: '/mailings' }]);
});

test('nothing is found by a word that only stands inside another one, by other words or by none', () => {
  expect(names('ailing')).toEqual([]);
  expect(names('new zebra')).toEqual([]);
  expect(names('  ')).toEqual([]);
});

test('who is no administrator does not find what is for administrators', () => {
  expect(names('people', false)).toEqual([]);
  expect(names('your account', false)).toEqual(['Your account']);
});

test('few are offered, so that what was looked for on the server is still seen', () =>
  expect(names('settings').length).toBeLessThanOrEqual(4));
