import { field } from '../../testing/field.js';
import { columnOf, findingsIn } from '../../testing/findings.js';
import type { FillRule } from '../../map/registry.js';

const [one, two]: FillRule[] = ['One', 'Two'].map((column) => ({ kind: 'column', column }));
const told = (a: Parameters<typeof field>[1], b: Parameters<typeof field>[1], rules: [FillRule, FillRule] = [one!, two!]): string[] =>
  findingsIn(
    [columnOf('One', 'text'), columnOf('Two', 'text')],
    [['1980', '1981']],
    {
      templates: [
        { fields: [field('a', a)], map: { a: rules[0] }, measure: null },
        { fields: [field('b', b)], map: { b: rules[1] }, measure: null },
      ],
    },
    'said-differently',
  ).map(({ label }) => label!);

test('under other headings only more than one word is telling', () => {
  expect(told({ tooltip: 'Name', section: 'Tenant' }, { tooltip: 'Name', section: 'Child' })).toEqual([]);
  expect(told({ tooltip: 'Name', section: 'Tenant' }, { tooltip: 'Name', section: 'TENANT ' })).toEqual(['Name']);
  expect(told({ tooltip: 'Date of birth', section: 'Tenant' }, { tooltip: 'date of  birth', section: 'You' })).toEqual(['date of  birth']);
});

test('one rule for both says one thing, and words that are only the name of a field are none', () => {
  expect(told({ tooltip: 'Date of birth' }, { tooltip: 'Date of birth' }, [one!, one!])).toEqual([]);
  expect(told({ labelFrom: 'name' }, { labelFrom: 'name' })).toEqual([]);
  expect(told({ tooltip: 'Born' }, { tooltip: 'Died' })).toEqual([]);
});

test('what stands twice in one template is two questions', () => {
  const twice = [field('a', { tooltip: 'Name' }), field('c', { tooltip: 'Name' })];
  const found = findingsIn([columnOf('One', 'text'), columnOf('Two', 'text')], [['Ada', 'Bea']], {
    templates: [
      { fields: twice, map: { a: one!, c: two! }, measure: null },
      { fields: [field('b', { tooltip: 'Name' })], map: { b: two! }, measure: null },
    ],
  });
  expect(found).toEqual([]);
});
