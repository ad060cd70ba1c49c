import { toldOf } from '../../testing/findings.js';
import { postalDigits } from './postal-code.js';

/** Postal codes as they are written in each country (Universal Postal Union, addressing systems; written from memory). */
const written: Record<string, readonly string[]> = {
  AT: ['1010', '6020'],
  AU: ['2000', '0800'],
  BE: ['1000'],
  CA: ['K1A 0B1'],
  CH: ['8001'],
  CZ: ['110 00', '11000'],
  DE: ['01067', '10115'],
  DK: ['1050'],
  ES: ['08001', '28013'],
  FI: ['00100'],
  FR: ['75001', '20000'],
  GB: ['SW1A 1AA', 'EC1A 1BB', 'M1 1AE'],
  HU: ['1051'],
  IN: ['110001'],
  IT: ['00184'],
  JP: ['100-0001'],
  NL: ['1012 AB', '1012AB'],
  NO: ['0150'],
  PL: ['00-001'],
  PT: ['1000-001'],
  SE: ['111 20', '11120'],
  SK: ['811 01'],
  US: ['02108', '02108-1234'],
};
const told = (country: string, texts: readonly string[]): string[] =>
  toldOf('postal-code', texts, 'postal-code-wrong', { plan: { country } }).map(([text]) => text);

test.each(Object.entries(written))('%s: what is written there is right', (country, codes) => expect(told(country, codes)).toEqual([]));

test.each(Object.keys(written))('%s: what cannot be one is told', (country) => {
  expect(told(country, ['no code', '12345678901'])).toEqual(['no code', '12345678901']);
});

test('digits that are missing in front are another check’s business, too many are this one’s', () => {
  expect(told('DE', ['1067', '067'])).toEqual([]);
  expect(told('DE', ['010670'])).toEqual(['010670']);
});

test('without a country, or in one whose codes are not known, nothing is said', () => {
  expect(told('', ['anything'])).toEqual([]);
  expect(told('AQ', ['anything'])).toEqual([]);
});

test('lost zeros are those of the country’s digits', () => {
  for (const [country, digits] of Object.entries(postalDigits)) {
    const full = '1'.repeat(digits);
    const short = full.slice(1);
    expect([country, toldOf('postal-code', [full, short], 'lost-zeros', { plan: { country } })]).toEqual([country, [[short, `0${short}`]]]);
  }
});
