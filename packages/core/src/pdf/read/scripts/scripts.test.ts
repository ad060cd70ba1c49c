import { formOf } from '../../../../../../testing/raw-form.js';
import { testFonts } from '../../../testing/platform.js';
import { readByOther } from '../../../../../../testing/other-reader.js';
import { compileTemplate } from '../../plan/compile.js';
import { fillCopy } from '../../fill/fill.js';
import { inspectTemplate } from '../inspect.js';
import { readValues } from '../read.js';
import { recogniseCalculation } from './calculation.js';
import { applyFormat, recogniseFormat } from './script.js';

/** The functions AF… are those of the published PDF script API; values by its description of their arguments. */
describe('formats that the author left as scripts are honoured without running script', () => {
  test.each([
    // nDec, sepStyle, negStyle, currStyle, strCurrency, bCurrencyPrepend
    ['AFNumber_Format(2, 0, 0, 0, "", true);', '1234.5', '1,234.50'],
    ['AFNumber_Format(2, 1, 0, 0, "", true)', '1234567.891', '1234567.89'],
    ['AFNumber_Format(2, 2, 0, 0, "\\u20ac ", true)', '1234567.891', '€ 1.234.567,89'],
    ['AFNumber_Format(0, 3, 0, 0, " kg", false)', '1234.5', '1235 kg'],
    ['AFNumber_Format(2, 4, 0, 0, "", false)', '1234567', "1'234'567.00"],
    ['AFNumber_Format(2, 0, 0, 0, "$", true)', '-12', '-$12.00'],
    ['AFNumber_Format(2, 0, 2, 0, "$", true)', '-12', '($12.00)'],
    ['AFNumber_Format(2, 0, 0, 0, "", true)', '1.005', '1.01'],
    ['AFNumber_Format(2, 2, 0, 0, "", true)', '1.234,5', '1.234,50'],
    ['AFNumber_Format(0, 0, 0, 0, "", true)', '-0.2', '0'],
    ['AFPercent_Format(1, 0)', '0.125', '12.5%'],
    ['AFDate_FormatEx("dd.mm.yyyy")', '2027-02-01', '01.02.2027'],
    ['AFDate_FormatEx("mmmm d, yyyy")', '2027-02-01', 'February 1, 2027'],
    ['AFDate_Format(2)', '2027-02-01', '02/01/27'],
    ['AFTime_Format(1)', '14:05', '2:05 pm'],
    ['AFTime_FormatEx("HH:MM:ss")', '14:05', '14:05:00'],
    ['AFSpecial_Format(0)', '01234', '01234'],
    ['AFSpecial_Format(1)', '012345678', '01234-5678'],
    ['AFSpecial_Format(2)', '5551234567', '(555) 123-4567'],
    ['AFSpecial_Format(3)', '123456789', '123-45-6789'],
  ])('%s shows %p as %p', (script, value, shown) => {
    expect(applyFormat(recogniseFormat(script)!, value)).toBe(shown);
  });

  test.each([
    ['AFNumber_Format(2, 0, 0, 0, "", true)', 'on request'],
    ['AFDate_FormatEx("dd.mm.yyyy")', '31.02.2027'],
    ['AFSpecial_Format(2)', 'ask for it'],
  ])('%s leaves %p as it is, so that nothing is lost', (script, value) => {
    expect(applyFormat(recogniseFormat(script)!, value)).toBe(value);
  });

  test('anything that is not exactly one known call is no format', () => {
    for (const script of ['AFNumber_Format(2, 0, 0, 0, "", true); app.alert(1)', 'event.value = 3', 'AFNumber_Format(evil())', '']) {
      expect(recogniseFormat(script)).toBeNull();
    }
  });
});

test.each([
  ['AFSimple_Calculate("SUM", new Array ("a", "b"));', { operation: 'sum', fields: ['a', 'b'] }],
  ['AFSimple_Calculate("PRD", "price, count")', { operation: 'product', fields: ['price', 'count'] }],
  ["AFSimple_Calculate('AVG', ['a'])", { operation: 'average', fields: ['a'] }],
  ['AFSimple_Calculate("MIN", new Array("x"))', { operation: 'minimum', fields: ['x'] }],
  ['AFSimple_Calculate("MAX", new Array("x"))', { operation: 'maximum', fields: ['x'] }],
  ['AFSimple_Calculate("POW", new Array("x"))', null],
])('%s is recognised as %p', (script, calculation) => {
  expect(recogniseCalculation(script)).toEqual(calculation);
});

test('a total is worked out from what the record gives, in the order of the form, and shown in its format', async () => {
  const field = (name: string, y: number, script = '', format = ''): string =>
    `/FT/Tx/T(${name})/Rect[10 ${y} 110 ${y + 20}]/DA(/Helv 10 Tf 0 g)` +
    (script || format ? `/AA<<${script && `/C<</S/JavaScript/JS(${script})>>`}${format && `/F<</S/JavaScript/JS(${format})>>`}>>` : '');
  const money = 'AFNumber_Format\\(2, 0, 0, 0, "", true\\)';
  const pdf = formOf(
    [
      // Stands before what it depends on; CO says the order.
      field('total', 10, 'AFSimple_Calculate\\("SUM", new Array \\("rent", "water"\\)\\);', money),
      field('rent', 40, 'AFSimple_Calculate\\("PRD", new Array \\("area", "rate"\\)\\);', money),
      field('water', 70),
      field('area', 100),
      field('rate', 130),
    ],
    { form: '/CO[6 0 R 5 0 R]' },
  );
  const described = await inspectTemplate(pdf);
  expect(described.fields[0]!.calculation).toEqual({ operation: 'sum', fields: ['rent', 'water'] });
  const fonts = await testFonts();
  const values = { area: '200', rate: '0.82', water: '18.5' };
  const flat = fillCopy(await compileTemplate(pdf, { fonts, faces: [] }), values).bytes;
  expect((await readByOther(flat))[0]!.pieces.map(({ text }) => text)).toEqual(expect.arrayContaining(['164.00', '182.50', '18.5']));
  // A form that stays open keeps the plain numbers as its values.
  expect(await readValues(fillCopy(await compileTemplate(pdf, { fonts, faces: [], finish: 'open' }), values).bytes)).toMatchObject({
    rent: '164',
    total: '182.5',
  });
  // What the record says itself is not worked out over it.
  const given = fillCopy(await compileTemplate(pdf, { fonts, faces: [] }), { ...values, total: '99' }).bytes;
  expect((await readByOther(given))[0]!.text).toContain('99.00');
});
