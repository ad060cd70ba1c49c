import { MailbagError } from '../../errors/catalogue.js';
import type { ColumnKind } from '../../tables/record.js';
import type { Condition } from '../../map/condition.js';
import { field } from '../../testing/field.js';
import { columnOf, findingsIn } from '../../testing/findings.js';
import type { TestRows } from '../../testing/findings.js';
import type { CheckSetup } from '../check.js';
import type { Finding } from '../finding.js';
import { checkKinds, findingSentence, findingTitle } from '../registry.js';

/** What leads to a finding, and what is next to it and leads to none. */
interface Case {
  code: string;
  columns: readonly [name: string, kind: ColumnKind][];
  setup?: Partial<CheckSetup>;
  wrong: TestRows;
  right: TestRows;
  /** TestRows that are told of, from 2 as in a sheet; the last one where nothing is said. */
  rows?: readonly number[];
  says: RegExp;
  mend?: string | null;
}

const many = (count: number, row: (index: number) => TestRows[number]): TestRows => Array.from({ length: count }, (_, index) => row(index));
const template = (
  fields: ReturnType<typeof field>[],
  map: object,
  measure: CheckSetup['templates'][number]['measure'] = null,
): Partial<CheckSetup> => ({
  templates: [{ fields, map: map as never, measure }],
});
/** A template that only some records get; what it would say of the others is not asked. */
const forSome = (when: Condition): Partial<CheckSetup> => ({
  templates: [{ fields: [field('a', { flags: ['required'] })], map: { a: { kind: 'column', column: 'Value' } }, measure: null, when }],
});
const mapped = { a: { kind: 'column', column: 'Value' } };
const noted = (note: object) =>
  template([field('a', { tooltip: 'Remarks' })], mapped, (values) =>
    values.a === 'bad' ? [{ field: 'a', fit: 'fits', characters: [], ...note }] : [],
  );

/** Two templates that ask something in the same words, and take it from two columns. */
const two = (
  one: Parameters<typeof field>[1] = { tooltip: 'Date of birth', labelFrom: 'print' },
  other: Parameters<typeof field>[1] = one,
): Partial<CheckSetup> => ({
  templates: [
    { fields: [field('a', one)], map: { a: { kind: 'column', column: 'One' } }, measure: null },
    { fields: [field('b', other)], map: { b: { kind: 'column', column: 'Two' } }, measure: null },
  ],
});

const cases: Case[] = [
  { code: 'key-blank', columns: [['Plot', 'key']], setup: { keyColumn: 'Plot' }, wrong: [['A-1'], [' ']], right: [['A-1'], ['A-2']], says: /“Plot” is empty/ },
  { code: 'key-twice', columns: [['Plot', 'key']], setup: { keyColumn: 'Plot' }, wrong: [['A-1'], ['B'], ['a-1 ']], right: [['A-1'], ['A-2']], rows: [2, 4], says: /the key of row [24]/ },
  { code: 'address-wrong', columns: [['Mail', 'email']], setup: { addressColumn: 'Mail' }, wrong: [['ada@@example.org']], right: [['ada@example.org']], says: /cannot be mailed to/, mend: 'ada@example.org' },
  { code: 'address-missing', columns: [['Mail', 'email']], setup: { addressColumn: 'Mail' }, wrong: [['']], right: [['ada@example.org']], says: /made and kept, but not mailed/ },
  { code: 'value-missing', columns: [['Name', 'text']], setup: { plan: { columns: { Name: { required: true } } } }, wrong: [['Ada'], [' ']], right: [['Ada']], says: /Name/ },
  { code: 'not-unique', columns: [['Number', 'text']], setup: { plan: { columns: { Number: { unique: true } } } }, wrong: [['7'], ['7']], right: [['7'], ['8'], [''], ['']], rows: [2, 3], says: /is also in row [23]/ },
  { code: 'domain-typo', columns: [['Mail', 'email']], wrong: [...many(12, (at) => [`t${at}@larkmere.example`]), ['x@larkmer.example']], right: many(13, (at) => [`t${at}@larkmere.example`]), says: /larkmere\.example is far more usual/, mend: 'x@larkmere.example' },
  { code: 'phone-wrong', columns: [['Phone', 'phone']], setup: { plan: { country: 'DE' } }, wrong: [['12']], right: [['+49 30 123456']], says: /12/ },
  { code: 'postal-code-wrong', columns: [['Code', 'postal-code']], setup: { plan: { country: 'DE' } }, wrong: [['1234567']], right: [['01067']], says: /1234567/ },
  { code: 'iban-wrong', columns: [['Account', 'iban']], wrong: [['GB82 WEST 1234 5698 7654 33']], right: [['GB82 WEST 1234 5698 7654 32']], says: /check digits/ },
  { code: 'date-wrong', columns: [['Born', 'date']], wrong: [['31.02.2027']], right: [[['28.02.2027', '2027-02-28']]], says: /there is no such day/ },
  { code: 'date-as-text', columns: [['Born', 'date']], wrong: [['28.02.2027']], right: [[['28.02.2027', '2027-02-28']]], says: /kept as text/ },
  { code: 'number-as-text', columns: [['Rent', 'number']], wrong: [['12']], right: [[['12', 12]]], says: /12/ },
  { code: 'not-a-number', columns: [['Rent', 'number']], wrong: [['twelve']], right: [[['12', 12]]], says: /twelve/ },
  { code: 'lost-zeros', columns: [['Code', 'postal-code']], wrong: [...many(6, (at) => [`0106${at}`]), ['1067']], right: many(6, (at) => [`0106${at}`]), says: /leading zero was lost/, mend: '01067' },
  { code: 'stray-space', columns: [['Name', 'text']], wrong: [['Ada ']], right: [['Ada']], says: /starts or ends with a space/, mend: 'Ada' },
  { code: 'odd-space', columns: [['Name', 'text']], wrong: [['Ada  Quist']], right: [['Ada Quist']], says: /doubled or invisible/, mend: 'Ada Quist' },
  { code: 'control-character', columns: [['Name', 'text']], wrong: [['A\u0007da']], right: [['Ada\nQuist']], says: /U\+0007/, mend: 'Ada' },
  { code: 'all-capitals', columns: [['Name', 'text']], wrong: [['Ada Quist'], ['Bea Brandt'], ['CLEO DUYVIS']], right: [['ADA B.'], ['BEATE'], ['CLEO'], ['Bo']], says: /in capitals/, mend: 'Cleo Duyvis' },
  { code: 'odd-shape', columns: [['Plot', 'key']], wrong: [...many(120, (at) => [`A-${at + 10}`]), ['A 12']], right: many(120, (at) => [`A-${at + 10}`]), says: /written differently from the others/ },
  { code: 'out-of-range', columns: [['Rent', 'number']], setup: { plan: { columns: { Rent: { range: { minimum: '10', maximum: '20' } } } } }, wrong: [[['21', 21]]], right: [[['10', 10]], [['20', 20]]], says: /21/ },
  { code: 'not-allowed', columns: [['Voice', 'text']], setup: { plan: { columns: { Voice: { allowed: ['Soprano', 'Bass'] } } } }, wrong: [['Baritone'], ['Sopran']], right: [['soprano '], ['']], rows: [2, 3], says: /does not allow/ },
  { code: 'mixed-up', columns: [['Name', 'text'], ['Mail', 'email']], wrong: [['Ada', 'ada@example.org'], ['bea@example.org', '']], right: [['Ada', 'ada@example.org'], ['bea@example.org', 'b@example.org']], says: /looks like a value for “Mail”/ },
  { code: 'same-person', columns: [['Name', 'text'], ['Mail', 'email']], wrong: [['Ada Quist', 'a@example.org'], ['Quist, Ada', 'a@example.org']], right: [['Ada Quist', 'a@example.org'], ['Bea Quist', 'a@example.org']], rows: [2, 3], says: /same name and the same Mail/ },
  { code: 'untranslated', columns: [['Value', 'text']], setup: template([field('a', { kind: 'checkbox', onValues: ['On'], tooltip: 'Water' })], { a: { kind: 'translate', column: 'Value', table: [{ from: 'yes', to: 'On' }] } }), wrong: [['perhaps']], right: [['yes'], ['']], says: /“Water” does not accept “perhaps”. It accepts “yes”/ },
  { code: 'cannot-work-out', columns: [['Value', 'text']], setup: template([field('a', { tooltip: 'Rent' })], { a: { kind: 'number', of: { kind: 'column', column: 'Value' }, round: null, show: { words: 'de', currency: null } } }), wrong: [['much']], right: [['12'], ['']], says: /“Rent” cannot be calculated. “much” is not a number/ },
  { code: 'no-template', columns: [['Value', 'text']], setup: forSome({ of: { kind: 'column', column: 'Value' }, test: 'not-empty' }), wrong: [['']], right: [['yes']], says: /No template of the packet is for this record/ },
  { code: 'condition-unclear', columns: [['Value', 'text']], setup: forSome({ of: { kind: 'column', column: 'Value' }, test: 'over', number: '-1' }), wrong: [['many']], right: [['3']], says: /cannot be decided whether this record gets a template.*“many” is not a number/ },
  { code: 'required-blank', columns: [['Value', 'text']], setup: template([field('a', { flags: ['required'], tooltip: 'Tenant' })], mapped), wrong: [['']], right: [['Ada']], says: /Tenant/ },
  { code: 'too-long', columns: [['Value', 'text']], setup: template([field('a', { maxLength: 3 })], mapped), wrong: [['Ada!']], right: [['Ada'], ['e\u0301e\u0301e\u0301']], says: /takes 3 characters; this value has 4/ },
  { code: 'format-unfit', columns: [['Value', 'text']], setup: template([field('a', { format: { pattern: 'dd.mm.yyyy' } as never, tooltip: 'Born' })], mapped), wrong: [['14:30']], right: [[['28.02.2027', '2027-02-28']]], says: /does not go into “Born”/ },
  { code: 'cannot-draw', columns: [['Value', 'text']], setup: noted({ characters: ['\u{10ffff}'] }), wrong: [['bad']], right: [['good']], says: /No face can draw/ },
  { code: 'overflows', columns: [['Value', 'text']], setup: noted({ fit: 'overflows' }), wrong: [['bad']], right: [['good']], says: /does not fit the box of “Remarks”/ },
  { code: 'overflows', columns: [['Value', 'text']], setup: noted({ fit: 'overflows', lost: 'ad' }), wrong: [['bad']], right: [['good']], says: /of its 3 characters the last 2 cannot be seen, “ad”/ },
  { code: 'untranslated', columns: [['Value', 'text']], setup: template([field('a', { kind: 'radio', onValues: ['1', '2'], options: [{ value: '1', label: 'monthly' }, { value: '2', label: 'yearly' }] })], mapped), wrong: [['montly']], right: [['monthly']], says: /The nearest is “monthly”/, mend: 'monthly' },
  { code: 'picture-missing', columns: [['Value', 'text']], setup: { ...template([field('a', { kind: 'signature', tooltip: 'Photo' })], {}), pictures: [{ template: 0, field: 'a', column: 'Value', has: (name: string) => name === 'ada.png' }] }, wrong: [['bo.png']], right: [['ada.png'], ['']], says: /No picture called “bo.png” came with the records, so “Photo” would stay empty/ },
  { code: 'passwords-same', columns: [['Value', 'text']], setup: { passwordFault: ({ cells }) => (cells[0]!.text === 'bad' ? new MailbagError('password-both') : null) }, wrong: [['bad']], right: [['good']], says: /permissions password too/ },
  { code: 'password-empty', columns: [['Value', 'text']], setup: { openPassword: ({ cells }) => cells[0]!.text }, wrong: [['']], right: [['long enough']], says: /would be empty/ },
  { code: 'password-weak', columns: [['Value', 'text']], setup: { openPassword: ({ cells }) => cells[0]!.text }, wrong: [['A-12']], right: [['A-12ab']], says: /has only 4 characters/ },
  { code: 'same-file', columns: [['Value', 'text']], setup: { places: { columns: ['Value'], of: ({ cells }) => [`Permits/${cells[0]!.text}.pdf`] } }, wrong: [['Quist'], ['Brandt'], ['quist']], right: [['Quist'], ['Brandt']], rows: [2, 4], says: /copy of row [24] has the file name “Permits\/[Qq]uist\.pdf” too/ },
  { code: 'same-file', columns: [['Value', 'text']], setup: { places: { columns: ['Value'], of: ({ cells }) => [`${cells[0]!.text}.pdf`, `${cells[0]!.text}.pdf`] } }, wrong: [['Quist']], right: [], says: /Several copies of this record/ },
  { code: 'said-differently', columns: [['One', 'text'], ['Two', 'text']], setup: two(), wrong: [['1980', '1981']], right: [['1980', '1980'], ['', '1980']], says: /“Date of birth” would say “1981” here and “1980” in another template/ },
  // Under other headings a bare “Name” may be anybody's, and what one rule fills is the same.
  { code: 'said-differently', columns: [['One', 'text'], ['Two', 'text']], setup: two({ tooltip: 'Date of birth', section: 'Tenant' }, { tooltip: 'Date of birth', section: 'Child' }), wrong: [['1980', '1981']], right: [], says: /1981/ },
  { code: 'password-too-long', columns: [['Value', 'text']], setup: { passwordFault: ({ cells }) => (cells[0]!.text === 'bad' ? new MailbagError('password-long', { length: 200, limit: 127 }) : null) }, wrong: [['bad']], right: [['good']], says: /127/ },
]; // prettier-ignore

const found = ({ code, columns, setup }: Case, rows: TestRows): Finding[] =>
  findingsIn(
    columns.map(([name, kind]) => columnOf(name, kind)),
    rows,
    setup,
    code,
  );

test.each(cases.map((one) => [one.code, one] as const))(
  '%s: what is wrong is told of its row with a sentence, and what is right beside it is not',
  (_, one) => {
    const told = found(one, one.wrong);
    expect(told.map(({ row }) => row).sort((a, b) => a - b)).toEqual(one.rows ?? [one.wrong.length + 1]);
    for (const finding of told) expect(findingSentence(finding)).toMatch(one.says);
    expect(findingTitle(one.code)).not.toBe(one.code);
    if (one.mend !== undefined) expect(told[0]!.mend).toBe(one.mend);
    expect(found(one, one.right)).toEqual([]);
  },
);

test('no check is without a case here', () => {
  const known = Object.values(checkKinds).flatMap(({ findings }) => Object.keys(findings));
  expect([...new Set(known)].filter((code) => !cases.some((one) => one.code === code))).toEqual([]);
});

test('what a mend proposes is right itself', () => {
  for (const one of cases.filter(({ mend }) => mend)) {
    const fixed = one.wrong.map((cells, at) => (at === one.wrong.length - 1 ? [one.mend!, ...cells.slice(1)] : cells));
    expect([one.code, found(one, fixed)]).toEqual([one.code, []]);
  }
});
