import examples from 'libphonenumber-js/examples.mobile.json' with { type: 'json' };
import { getCountryCallingCode } from 'libphonenumber-js/max';
import type { CountryCode } from 'libphonenumber-js';
import { columnOf, findingsIn, toldOf } from '../../testing/findings.js';
import { findingSentence } from '../registry.js';

const why = (text: string, country = 'DE'): string | null => {
  const [finding] = findingsIn([columnOf('Phone', 'phone')], [[text]], { plan: { country } }, 'phone-wrong');
  return finding ? findingSentence(finding) : null;
};

/** An example number for each region of the numbering plans (the open data set libphonenumber). */
const countries = Object.entries(examples as Record<string, string>);

test('an example of every country can be dialled, from within it and with its country code', () => {
  expect(countries.length).toBeGreaterThan(200);
  const wrong = countries.flatMap(([country, national]) => {
    const international = `+${getCountryCallingCode(country as CountryCode)} ${national}`;
    return [international, `00${international.slice(1)}`].filter((text) => why(text) !== null).map((text) => `${country} ${text}`);
  });
  expect(wrong).toEqual([]);
});

test.each([
  ['030 123456', null],
  ['(030) 12 34 56', null],
  ['030/123456', null],
  ['030 123456 ext. 12', null],
  ['030\u2013123456', null],
  ['030-123456 x7', null],
  ['110', /only 3 digits/],
  ['+49 30 1234567890123456', /more than the 15/],
  ['+999 123456', /country code is not known/],
  ['030 12 ask Ada', /other characters/],
  ['+49 30 12', /longer or shorter|no such number/],
])('%s in Germany', (text, fault) => (fault ? expect(why(text)).toMatch(fault) : expect(why(text)).toBeNull()));

test('without a country a number of digits is left alone, since nobody knows whose it is', () => {
  expect(why('030 123456', '')).toBeNull();
  expect(why('030 123456', 'ZZ')).toBeNull();
  expect(why('+49 30 123456', '')).toBeNull();
  expect(why('+49 30 ab', '')).toMatch(/other characters/);
});

test('empty cells are nobody’s number', () => expect(toldOf('phone', ['', '   '], 'phone-wrong', { plan: { country: 'DE' } })).toEqual([]));
