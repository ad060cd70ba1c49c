import { hexOf } from '../../hex.js';
import { parseDefaultAppearance } from './default-appearance.js';
import { num } from './number.js';

// ISO 32000-2, 7.3.3: neither exponents nor more precision than a reader keeps.
test.each([
  [0, '0'],
  [-0, '0'],
  [1, '1'],
  [-1.5, '-1.5'],
  [1 / 3, '0.333'],
  [2 / 3, '0.667'],
  [0.0004, '0'],
  [-0.0004, '0'],
  [0.0006, '0.001'],
  [123_456.7891, '123456.789'],
  [1e21, '1000000000000000000000'],
  [Number.NaN, '0'],
  [Number.POSITIVE_INFINITY, '0'],
])('%d is written %s', (value, text) => expect(num(value)).toBe(text));

test.each<[string | undefined, object]>([
  ['/Helv 12 Tf 0 g', { font: 'Helv', size: 12, scale: 1, colour: '0 g' }],
  ['0 0 1 rg /TiRo 0 Tf', { font: 'TiRo', size: 0, colour: '0 0 1 rg' }],
  ['0 0 0 1 k/F1 9.5 Tf', { font: 'F1', size: 9.5, colour: '0 0 0 1 k' }],
  ['80 Tz /Helv 10 Tf 0.5 g', { scale: 0.8, size: 10, colour: '0.5 g' }],
  // Producers write sizes below nought for text upside down; as large it is all the same.
  ['/Helv -11 Tf', { size: 11 }],
  // What makes no sense is not taken.
  ['/Helv big Tf red g', { font: 'Helv', size: 0, colour: '0 g' }],
  ['0 Tz /Helv 8 Tf', { scale: 1, size: 8 }],
  ['99999 Tz /Helv 8 Tf', { scale: 1 }],
  ['1 rg', { colour: '0 g' }],
  ['Helv 12 Tf', { font: 'Helv', size: 12 }],
  ['', { font: 'Helv', size: 0, scale: 1, colour: '0 g' }],
  [undefined, { font: 'Helv', size: 0, scale: 1, colour: '0 g' }],
  ['/Helv 12 Tf 1 0 0 rg 0 1 0 rg', { colour: '0 1 0 rg' }],
])('the appearance string %j asks for %j', (text, wanted) => expect(parseDefaultAppearance(text)).toMatchObject(wanted));

test('bytes in hexadecimal have two digits each', () => {
  expect(hexOf(Uint8Array.of(0, 1, 15, 16, 255))).toBe('00010f10ff');
  expect(hexOf(new Uint8Array())).toBe('');
});
