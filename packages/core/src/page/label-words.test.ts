import { isGeneric, labelWords, nameStem, nameWords, repeatsName, saysNoMore } from './label-words.js';

test.each<[string, string | null]>([
  ['Name:', 'Name'],
  ['  Name  of   tenant : ', 'Name of tenant'],
  ['1. Name', 'Name'],
  ['12a Wages', 'Wages'],
  ['(b) Interest', 'Interest'],
  ['iv) Rent', 'Rent'],
  ['7', null],
  ['2010, ending', 'ending'],
  [', 2026, ending', 'ending'],
  ['2027 rent', '2027 rent'],
  ['Street ...............', 'Street'],
  ['Street . . . . . . . .', 'Street'],
  ['Signature ____________', 'Signature'],
  ['Wages*', 'Wages'],
  ['Wages ¹', 'Wages'],
  ['Wages (see note 3)', 'Wages (see note 3)'],
  ['☐ Yes', 'Yes'],
  ['• Water', 'Water'],
  ['— or', 'or'],
  ['a', 'a'],
  ['A) Income', 'A) Income'],
  ['Straße / Rue', 'Straße / Rue'],
  ['電話番号:', '電話番号'],
  ['', null],
  ['...', null],
])('%j as a label is %j', (printed, label) => expect(labelWords(printed)).toBe(label));

test('a label is cut at a word, never in one', () => {
  const label = labelWords('The number of the certificate that was given out by the office of the town in which the tenant lived before')!;
  expect(label.length).toBeLessThanOrEqual(91);
  expect(label).toMatch(/ \p{L}+…$/u);
  expect('The number of the certificate that was given out by the office of the town in which the tenant lived before').toContain(
    label.slice(0, -1),
  );
});

test.each([
  'Text1',
  'text field 2',
  'undefined',
  'undefined_3',
  'CheckBox12',
  'f1_04[0]',
  'c1_1',
  'Radio Button',
  'Group3',
  'fill_17',
  '12',
  '_',
  'Dropdown1',
  'TextField[3]',
])('%s was given by a program', (name) => expect(isGeneric(name)).toBe(true));
test.each(['Surname', 'Text of the notice', 'Field of study', 'IBAN', 'Box number', 'Formula', 'Date', 'Checked by'])(
  '%s was meant by a person',
  (name) => expect(isGeneric(name)).toBe(false),
);

test.each<[string, string | null]>([
  ['applicant.phone_home', 'Phone home'],
  ['topmostSubform[0].Page1[0].LastName[0]', 'Last Name'],
  ['topmostSubform[0].Page1[0].f1_04[0]', null],
  ['txtSurname', 'Surname'],
  ['chk_Water', 'Water'],
  ['IBANNumber', 'IBAN Number'],
  ['dateOfBirth', 'Date Of Birth'],
  ['Text1', null],
  ['f1_04', null],
  ['x', null],
  ['größe', 'Größe'],
])('the name %s says %j', (name, words) => expect(nameWords(name)).toBe(words));

test('what says no more than something else has no word of its own', () => {
  expect(saysNoMore('Surname', 'Surname of the tenant')).toBe(true);
  expect(saysNoMore('tenant surname', 'Surname of the tenant')).toBe(true);
  expect(saysNoMore('Surname as in the passport', 'Surname')).toBe(false);
});

test.each<[string, string, boolean]>([
  ['phone_home', 'phone_home', true],
  ['phoneHome', 'applicant.phoneHome[0]', true],
  ['Phone (home)', 'phone_home', false],
  ['Surname', 'Surname', false],
])('the tooltip %j repeats the name %s: %s', (tooltip, name, is) => expect(repeatsName(tooltip, name)).toBe(is));

test.each<[string, string | null]>([
  ['#D0#98#D0#BC#D1#8F', 'Имя'],
  ['#E6#B0#8F#E5#90#8D.#E5#A7#93', '氏名'],
  ['氏名', '氏名'],
  ['#FF#FE#FF', null],
  ['applicant.e-mail', 'E-mail'],
])('the name %s says %j', (name, words) => expect(nameWords(name)).toBe(words));

test('names of one column say the same but for a number', () =>
  expect(['child1_name', 'child2_name', 'f1_04[0]'].map(nameStem)).toEqual(['child name', 'child name', null]));
