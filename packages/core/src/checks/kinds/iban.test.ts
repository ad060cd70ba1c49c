import { toldOf } from '../../testing/findings.js';
import { hasRightCheckDigits, ibanFault } from './iban.js';

/** Examples of the IBAN registry (ISO 13616-2), written from memory; their check digits prove them (ISO 13616-1, 6). */
const examples = [
  'AD1200012030200359100100',
  'AT611904300234573201',
  'BE68539007547034',
  'CH9300762011623852957',
  'CY17002001280000001200527600',
  'CZ6508000000192000145399',
  'DE89370400440532013000',
  'DK5000400440116243',
  'EE382200221020145685',
  'ES9121000418450200051332',
  'FI2112345600000785',
  'FR1420041010050500013M02606',
  'GB29NWBK60161331926819',
  'GR1601101250000000012300695',
  'HR1210010051863000160',
  'HU42117730161111101800000000',
  'IE29AIBK93115212345678',
  'IS140159260076545510730339',
  'IT60X0542811101000000123456',
  'LI21088100002324013AA',
  'LT121000011101001000',
  'LU280019400644750000',
  'LV80BANK0000435195001',
  'MT84MALT011000012345MTLCAST001S',
  'NL91ABNA0417164300',
  'NO9386011117947',
  'PL61109010140000071219812874',
  'PT50000201231234567890154',
  'RO49AAAA1B31007593840000',
  'SE4550000000058398257466',
  'SI56263300012039086',
  'SK3112000000198742637541',
];

test.each(examples)('%s is an IBAN, in groups of four and in small letters too', (iban) => {
  const grouped = iban.replace(/(.{4})(?=.)/g, '$1 ');
  expect([ibanFault(iban), ibanFault(grouped), ibanFault(grouped.toLowerCase())]).toEqual([null, null, null]);
});

test.each(examples)(
  'every single wrong digit of %s is found, and every two neighbours that changed places (ISO/IEC 7064, MOD 97-10)',
  (iban) => {
    for (let at = 2; at < iban.length; at++) {
      const own = iban[at]!;
      for (const other of '0123456789') {
        if (!/\d/.test(own) || other === own) continue;
        // The check digits 00, 01 and 99 stand for 97, 98 and 02: those pairs are no single slip.
        const wrong = iban.slice(0, at) + other + iban.slice(at + 1);
        expect([wrong, hasRightCheckDigits(wrong)]).toEqual([wrong, false]);
      }
      const next = iban[at + 1];
      if (at < 4 || next === undefined || next === own || !/\d\d/.test(own + next)) continue;
      const swapped = iban.slice(0, at) + next + own + iban.slice(at + 2);
      expect([swapped, hasRightCheckDigits(swapped)]).toEqual([swapped, false]);
    }
  },
);

test.each([
  ['DE8937040044053201300', /accounts of DE are longer or shorter/],
  ['DE893704004405320130000', /accounts of DE are longer or shorter/],
  ['DE88370400440532013000', /check digits/],
  ['1234567890', /two letters, two digits/],
  ['D£89370400440532013000', /two letters, two digits/],
  ['GB33BUKB2020155555555A', /check digits/],
])('%s is none, and why is said', (text, why) => expect(ibanFault(text)).toMatch(why));

test('a country that the register does not know is judged by its check digits', () => {
  // 98 less what is left of the number with 00 in their place (ISO 13616-1, 6).
  const bban = '00012345678901234';
  let rest = 0;
  for (const digit of `${bban}332900`) rest = (rest * 10 + Number(digit)) % 97;
  const right = `XT${String(98 - rest).padStart(2, '0')}${bban}`;
  expect(ibanFault(right)).toBeNull();
  expect(ibanFault(right.replace(/4$/, '5'))).toMatch(/check digits/);
});

test('in a sheet only what is filled and wrong is told, whatever stands there', () => {
  const texts = ['DE89 3704 0044 0532 0130 00', '', '  ', 'DE89 3704 0044 0532 0130 01', 'pays in cash'];
  expect(toldOf('iban', texts, 'iban-wrong')).toEqual([
    ['DE89 3704 0044 0532 0130 01', null],
    ['pays in cash', null],
  ]);
});
