import { addressLines, comparePostal, countryLetters, MOST_LINES } from './postal-address.js';

const ann = { name: 'Ann Roe', street: '12 Reed Lane', postalCode: '01067', town: 'Larkmere', region: '', country: '' };

describe('addresses stand as their country wants', () => {
  // Universal Postal Union, S42, and the post offices of the countries, as remembered: town and code in one line in Germany and France, apart in the United Kingdom.
  test.each([
    ['DE', ['Ann Roe', '12 Reed Lane', '01067 Larkmere']],
    ['GB', ['Ann Roe', '12 Reed Lane', 'Larkmere', '01067']],
    ['US', ['Ann Roe', '12 Reed Lane', 'Larkmere, OR 01067']],
    ['FR', ['Ann Roe', '12 Reed Lane', '01067 Larkmere']],
    ['HU', ['Ann Roe', 'Larkmere', '12 Reed Lane', '01067']],
  ])('in %s', (country, lines) => {
    expect(addressLines({ ...ann, region: 'OR', country }, country)).toEqual(lines);
  });
  test('another country stands in capitals at the end, the own one not at all', () => {
    expect(addressLines({ ...ann, country: 'France' }, 'DE')!.at(-1)).toBe('FRANCE');
    expect(addressLines({ ...ann, country: 'Germany' }, 'DE')).toEqual(['Ann Roe', '12 Reed Lane', '01067 Larkmere']);
  });
  test('without a street or a town nothing can be posted', () => {
    expect(addressLines({ ...ann, street: ' ' }, 'DE')).toBeNull();
    expect(addressLines({ ...ann, town: '' }, 'DE')).toBeNull();
  });
  test('never has more lines than the window shows', () => {
    const lines = addressLines({ ...ann, street: 'House A\nFlat 7\nBehind the mill', region: 'OR', country: 'HU' }, 'DE')!;
    expect(lines.length).toBeLessThanOrEqual(MOST_LINES);
    expect(lines[0]).toBe('Ann Roe');
    expect(lines.at(-1)).toBe('HUNGARY');
  });
  test.each([
    ['de', 'DE'],
    ['UK', 'GB'],
    ['New Zealand', 'NZ'],
    ['Nowhere', null],
    ['', null],
  ])('%p is the country %p', (text, code) => expect(countryLetters(text)).toBe(code));
});

test('postal order goes by country, then code as a number, so that the post office takes it sorted', () => {
  const at = (postalCode: string, country = '') => ({ ...ann, postalCode, country });
  const sorted = [at('10115'), at('75001', 'FR'), at('1067'), at('01067'), at('99084'), at('1010', 'AT')].sort((a, b) =>
    comparePostal(a, b, 'DE'),
  );
  expect(sorted.map(({ postalCode }) => postalCode)).toEqual(['1067', '01067', '10115', '99084', '1010', '75001']);
});
