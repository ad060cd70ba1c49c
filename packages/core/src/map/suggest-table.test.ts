import { columnOf } from '../testing/findings.js';
import { field } from '../testing/field.js';
import { chooseValue, normalised } from './choose.js';
import { suggestTable } from './suggest-table.js';
import { ruleForColumn, suggestRules } from './suggest.js';

const tick = field('water', { kind: 'checkbox', onValues: ['On'] });
const rhythm = field('rhythm', {
  kind: 'radio',
  onValues: ['0', '1'],
  options: [
    { value: '0', label: 'Yearly' },
    { value: '1', label: 'Monthly' },
  ],
});
const town = field('town', {
  kind: 'combo',
  options: [
    { value: 'lm', label: 'Larkmere' },
    { value: 'ng', label: 'North Gate' },
  ],
});
const to = (rows: readonly { from: string; to: string }[], from: string): string | undefined =>
  rows.find((row) => normalised(row.from) === normalised(from))?.to;

test.each(['yes', 'Y', 'true', '1', 'x'])('“%s” ticks a box', (word) => expect(to(suggestTable(tick, undefined), word)).toBe('On'));
test.each(['no', 'N', 'false', '0'])('“%s” does not', (word) => expect(to(suggestTable(tick, undefined), word)).toBe('Off'));
test.each([
  ['ja', 'On'],
  ['Oui', 'On'],
  ['sí', 'On'],
  ['да', 'On'],
  ['nein', 'Off'],
  ['non', 'Off'],
  ['нет', 'Off'],
  ['WAHR', 'On'],
  ['FALSCH', 'Off'],
  ['VRAI', 'On'],
  ['fałsz', 'Off'],
  ['☑', 'On'],
])('“%s” means %s where the sheet has it', (word, wanted) =>
  expect(to(suggestTable(tick, columnOf('Water', 'yes-no', { examples: [word] })), word)).toBe(wanted),
);

test('the samples of a column may all be yes, and the no of their language is understood; other languages are not listed', () => {
  const table = suggestTable(tick, columnOf('Wasser', 'yes-no', { examples: ['ja'] }));
  expect([to(table, 'nein'), to(table, 'FALSCH'), to(table, 'no'), to(table, 'non')]).toEqual(['Off', 'Off', 'Off', undefined]);
  // “n” is no in every language that says it, and none is listed twice.
  expect(table.filter(({ from }) => normalised(from) === 'n')).toHaveLength(1);
});

test('options are taken by what they show and by what they export, and the sheet’s own words where they begin alike', () => {
  const table = suggestTable(town, columnOf('Town', 'text', { examples: ['Lark', 'North Gate (old)', 'Elsewhere'] }));
  expect([to(table, 'larkmere'), to(table, 'LM'), to(table, 'Lark'), to(table, 'North Gate (old)'), to(table, 'Elsewhere')]).toEqual([
    'lm',
    'lm',
    'lm',
    'ng',
    undefined,
  ]);
  expect(to(suggestTable(rhythm, undefined), 'monthly')).toBe('1');
});

test('no word stands twice in a table', () => {
  for (const one of [tick, rhythm, town]) {
    const table = suggestTable(one, columnOf('X', 'text', { examples: ['YES', 'yes ', 'Yearly', 'larkmere'] }));
    expect(new Set(table.map(({ from }) => normalised(from))).size).toBe(table.length);
  }
});

test.each([
  [tick, 'On', 'On'],
  [tick, ' on ', 'On'],
  [tick, 'off', false],
  [tick, '', false],
  [rhythm, 'YEARLY', '0'],
  [rhythm, '1', '1'],
  [town, 'north  gate', 'ng'],
  [town, 'ng', 'ng'],
  [field('list', { kind: 'list', options: town.options }), 'Larkmere', ['lm']],
  [field('free', { kind: 'combo', flags: ['edit'], options: town.options }), 'Reedham', 'Reedham'],
  [field('a'), 'anything', 'anything'],
])('a field takes a text by name: %#', (one, text, value) => expect(chooseValue(one, text, 'C')).toEqual({ value }));

test('what no option is called is told with what is accepted', () => {
  const { value, untranslated } = chooseValue(town, 'Reedham', 'Town');
  expect(value).toBe('');
  expect(untranslated).toMatchObject({ column: 'Town', text: 'Reedham' });
  expect(untranslated!.accepted.join()).toContain('Larkmere');
});

/** Headings and labels as offices write them (common practice, no source): each field must find its own column among all of them. */
const pairs: [heading: string, label: string, name: string][] = [
  ['Last name', 'Surname of the tenant', 'topmostSubform[0].Page1[0].Surname[0]'],
  ['First name', 'Given name', 'given_name'],
  ['E-mail', 'Your e-mail address', 'email'],
  ['Tel.', 'Telephone', 'phoneNo'],
  ['ZIP', 'Postcode', 'postcode'],
  ['Date of birth', 'Born on', 'dob'],
  ['City', 'Town', 'town'],
  ['Contract start', 'From', 'contract.start'],
  ['Plot number', 'Plot no.', 'plotNumber'],
  ['IBAN', 'IBAN', 'iban'],
];
test('each field finds its own column among those of a usual sheet', () => {
  const columns = pairs.map(([heading]) => columnOf(heading, 'text'));
  const fields = pairs.map(([, label, name]) => field(name, { tooltip: label }));
  const found = suggestRules(fields, columns, {});
  const wrong = pairs.filter(
    ([heading, , name]) => JSON.stringify(found[name]) !== JSON.stringify(ruleForColumn(field(name), columnOf(heading, 'text'))),
  );
  expect(wrong).toEqual([]);
});

test('a field for a whole name is put together where the sheet has its parts, and what goes with nothing is left open', () => {
  const columns = ['First name', 'Surname', 'Remarks'].map((name) => columnOf(name, 'text'));
  const found = suggestRules([field('name', { tooltip: 'Name of the tenant' }), field('witness', { tooltip: 'Chassis' })], columns, {});
  expect(found).toEqual({ name: { kind: 'compose', parts: [{ column: 'First name' }, { text: ' ' }, { column: 'Surname' }] } });
});

test.each(['lastName', 'LastName', 'last_name', 'LAST NAME', 'familyName', 'surname'])('a field called %s is a surname', (name) => {
  const columns = ['Surname', 'First name'].map((heading) => columnOf(heading, 'text'));
  expect(suggestRules([field(name)], columns, {})).toEqual({ [name]: { kind: 'column', column: 'Surname' } });
});

test('what is filled already, read-only or a push button is not looked at', () => {
  const columns = [columnOf('Name', 'text')];
  const fields = [field('name'), field('Name 2', { flags: ['readOnly'] }), field('name3', { kind: 'button' })];
  expect(Object.keys(suggestRules(fields, columns, { name: { kind: 'blank' } }))).not.toContain('name');
  expect(Object.keys(suggestRules(fields, columns, {}))).not.toContain('name3');
});
