import { someContext } from '../testing/context.js';
import { columnOf } from '../testing/findings.js';
import type { ColumnKind } from '../tables/record.js';
import { checkSays, checksOf, plainSwitches, proposedChecks, unknownChecks } from './check-plan.js';
import { checkValue } from './check-records.js';
import { checkKinds } from './registry.js';

const on = (name: string, kind: ColumnKind): string[] => Object.keys(proposedChecks(columnOf(name, kind))).sort();

test.each<[string, ColumnKind, readonly string[]]>([
  ['Mail', 'email', ['domain', 'email', 'spaces']],
  ['Phone', 'phone', ['phone', 'shape', 'spaces']],
  ['PLZ', 'postal-code', ['postalCode', 'shape', 'spaces', 'zeros']],
  ['Account', 'iban', ['iban', 'spaces']],
  ['Born', 'date', ['date', 'spaces']],
  ['Rent', 'number', ['numberText', 'spaces']],
  ['Plot', 'key', ['shape', 'spaces']],
  ['Surname', 'text', ['capitals', 'spaces']],
  ['Remarks', 'text', ['spaces']],
])('a column %s of the kind %s is looked at by its kind', (name, kind, wanted) => {
  expect(on(name, kind).filter((one) => one !== 'control')).toEqual([...wanted].sort());
});

test('a column that is called as something every object has is a column like any other', () => {
  for (const name of ['constructor', '__proto__', 'toString']) {
    expect(checksOf({ columns: {} }, columnOf(name, 'text'))).toEqual(proposedChecks(columnOf(name, 'text')));
  }
});

test('what a person has set holds over what is proposed, also where it is off', () => {
  const column = columnOf('Mail', 'email');
  expect(checksOf({ columns: { Mail: { domain: false, required: true } } }, column)).toMatchObject({
    domain: false,
    required: true,
    email: true,
  });
  expect(checksOf({ columns: { Other: { domain: false } } }, column)).toEqual(proposedChecks(column));
});

test('every switch says what a value is, and none that is not there says anything', () => {
  for (const name of [...plainSwitches, 'range', 'allowed']) expect(checkSays(name)).toMatch(/^(is|has|lies|looks|appears) /);
  expect(checkSays('nothing')).toBe('');
  expect(new Set(plainSwitches).size).toBe(plainSwitches.length);
});

test('a plan with a check that there is none of is found out', () => {
  expect(unknownChecks({ columns: { A: { spaces: true }, B: { magic: true } } })).toBe('magic');
  expect(unknownChecks({ columns: { A: Object.fromEntries(plainSwitches.map((name) => [name, true])) } })).toBeNull();
  expect(unknownChecks({})).toBeNull();
  expect(unknownChecks({ columns: { A: { ['x'.repeat(500)]: true } } })!.length).toBe(60);
});

test('codes of findings are those of one check alone, but for the two that look at addresses', () => {
  const owners = new Map<string, string[]>();
  for (const [name, { findings }] of Object.entries(checkKinds))
    for (const code of Object.keys(findings)) owners.set(code, [...(owners.get(code) ?? []), name]);
  expect([...owners].filter(([, names]) => names.length > 1)).toEqual([['address-wrong', ['address', 'otherAddress']]]);
});

test.each([
  ['ada@@example.org', ['address-wrong'], 'ada@example.org'],
  ['ada@example.org', [], null],
  [' ada@example.org', ['stray-space'], 'ada@example.org'],
  ['', [], null],
])('a value that is tried, %j, is told what a record with it would be told', (text, codes, mend) => {
  const found = checkValue(columnOf('Mail', 'email'), { email: true, spaces: true }, {}, { text, value: text }, someContext);
  expect(found.map(({ code }) => code)).toEqual(codes);
  expect(found[0]?.mend ?? null).toBe(mend);
});
