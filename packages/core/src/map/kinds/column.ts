import { takesOneOf } from '../rule.js';
import type { Field } from '../../pdf/field.js';
import type { Cell } from '../../tables/record.js';
import { chooseValue } from '../choose.js';
import type { RuleKind } from '../rule.js';

/** The text of a column as the person sees it. */
export interface ColumnRule {
  kind: 'column';
  column: string;
}

const ISO = /^\d{4}-\d{2}-\d{2}([T ]\d{2}:\d{2}(:\d{2})?)?$|^\d{2}:\d{2}(:\d{2})?$/;

/**
 * The text of a cell for a field. One with a format of its own is given the typed value, which is read in one way only: “3/5/2027” may be in March or in May,
 * and “1,5” one and a half or fifteen.
 */
function textFor(field: Field, { text, value }: Cell): string {
  const { format } = field;
  if (!format || 'which' in format) return text;
  if ('pattern' in format) return typeof value === 'string' && ISO.test(value) ? value : text;
  return typeof value === 'number' ? String(value) : text;
}

export const column: RuleKind<ColumnRule> = {
  kind: 'column',
  order: 10,
  title: 'a column',
  suits: (field) => !takesOneOf(field),
  begin: (_, column) => ({ kind: 'column', column: column?.name ?? '' }),
  parse: ({ column }) => (typeof column === 'string' ? { kind: 'column', column } : null),
  readsColumns: (rule) => [rule.column],
  evaluate: (rule, field, row) => chooseValue(field, textFor(field, row.cell(rule.column)), rule.column),
  sentence: (rule) => [{ column: rule.column }],
  rename: (rule, from, to) => (rule.column === from ? { ...rule, column: to } : rule),
};
