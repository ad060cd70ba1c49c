import { chooseValue } from '../choose.js';
import type { RuleKind } from '../rule.js';

/** The text of a column as the person sees it. */
export interface ColumnRule {
  kind: 'column';
  column: string;
}

export const column: RuleKind<ColumnRule> = {
  kind: 'column',
  readsColumns: (rule) => [rule.column],
  evaluate: (rule, field, row) => chooseValue(field, row.cell(rule.column).text, rule.column),
  sentence: (rule) => [{ column: rule.column }],
  rename: (rule, from, to) => (rule.column === from ? { ...rule, column: to } : rule),
};
