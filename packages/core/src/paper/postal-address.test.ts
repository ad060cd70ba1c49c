import { addressLines, comparePostal, countryLetters, MOST_LINES } from './postal-address.js';
import type { PostalAddress } from './postal-address.js';

const names = new Intl.DisplayNames(['en'], { type: 'region' });
/** Every code of ISO 3166-1 that the runtime has a name for. */
const codes = Array.from({ length: 26 * 26 }, (_, at) => String.fromCharCode(65 + Math.floor(at / 26), 65 + (at % 26))).filter(
  (code) =>
    names.of(code) !== code &&
    !['UK', 'EU', 'EZ', 'UN', 'QO', 'XA', 'XB', 'ZZ'].includes(code) &&
    Intl.getCanonicalLocales(`und-${code}`)[0] === `und-${code}`,
);
const ada: PostalAddress = {
  name: 'Ada Quist',
  street: 'Reed Lane 1\nBack house',
  postalCode: '01067',
  town: 'Larkmere',
  region: 'Westshire',
  country: '',
};

test('there are as many countries as a post office knows', () => expect(codes.length).toBeGreaterThan(240));

test.each(codes)('%s: everything stands in the window once, the name first, and from abroad the country last in capitals', (country) => {
  const at = addressLines({ ...ada, country }, country)!;
  const abroad = addressLines({ ...ada, country }, country === 'DE' ? 'FR' : 'DE')!;
  for (const lines of [at, abroad]) {
    expect(lines.length).toBeLessThanOrEqual(MOST_LINES);
    const all = lines.join('\n');
    for (const part of ['Ada Quist', 'Reed Lane 1', 'Back house', 'Larkmere'])
      expect([country, part, all.split(part).length - 1]).toEqual([country, part, 1]);
  }
  // Where country and town are one, and on the islands of the Channel, post offices write the name at home too, by the open data of the format library.
  if (!['GG', 'JE', 'GI', 'SG'].includes(country)) expect(at.join('\n')).not.toContain(names.of(country)!.toUpperCase());
  expect(abroad.at(-1)).toBe(names.of(country)!.toUpperCase());
});

test.each(codes)('%s is found by its letters and by its name, however it is written', (code) => {
  const name = names.of(code)!;
  expect([countryLetters(code), countryLetters(code.toLowerCase()), countryLetters(`  ${name.toUpperCase()} `)]).toEqual([
    code,
    code,
    code,
  ]);
});

test.each([
  ['Russia', 'RU'],
  ['SU', 'RU'],
  ['Serbia', 'RS'],
  ['Yemen', 'YE'],
  ['Benin', 'BJ'],
  ['DD', 'DE'],
])('“%s” is the country that it is today, %s', (text, code) => expect(countryLetters(text)).toBe(code));

test('postal order is one order: whoever comes before somebody is never after them', () => {
  const people = ['01067', '1067', '10115', '', 'A1 2BC'].flatMap((postalCode) =>
    ['', 'FR', 'AT'].flatMap((country) => ['Larkmere', 'Reedham'].map((town): PostalAddress => ({ ...ada, postalCode, country, town }))),
  );
  for (const a of people)
    for (const b of people) {
      expect(Math.sign(comparePostal(a, b, 'DE'))).toBe(-Math.sign(comparePostal(b, a, 'DE')) || 0);
      for (const c of people)
        if (comparePostal(a, b, 'DE') <= 0 && comparePostal(b, c, 'DE') <= 0) expect(comparePostal(a, c, 'DE')).toBeLessThanOrEqual(0);
    }
  const [first] = [...people].sort((a, b) => comparePostal(a, b, 'DE'));
  expect(first!.country).toBe('');
});
