import type { Blank } from './blank.js';
import { fieldsOfBlanks } from './fields-of-blanks.js';

const blank = (label: string | null, more: Partial<Blank> = {}): Blank => ({
  page: 1,
  rect: [0, 0, 10, 10],
  kind: 'text',
  cells: null,
  label,
  group: null,
  ...more,
});

test('fields are called by the words of their blanks, two of the same are numbered, and what has no words by its kind and page', () => {
  const fields = fieldsOfBlanks([
    blank('Family name'),
    blank('Family name'),
    blank(null, { page: 2, kind: 'multiline' }),
    blank('Yes', { kind: 'checkbox', group: 'Does the plot have water?' }),
    blank('IBAN', { kind: 'comb', cells: 22 }),
  ]);
  expect(fields.map(({ name, label, cells }) => [name, label, cells])).toEqual([
    ['family_name', 'Family name', null],
    ['family_name_2', 'Family name', null],
    ['multiline_p2', null, null],
    ['does_the_plot_have_water_yes', 'Does the plot have water?: Yes', null],
    ['iban', 'IBAN', 22],
  ]);
});
