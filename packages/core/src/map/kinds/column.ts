import { t } from '../../words/words.js';
import { takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** The text of a column as the person sees it. */
export interface ColumnRule {
  kind: 'column';
  column: string;
}

export const column: RuleKind<ColumnRule> = {
  kind: 'column',
  order: 10,
  asItStands: true,
  title: t`a column`,
  help: t`Takes what stands in a column, as you see it in your sheet.`,
  parts: { column: 'name of the column' },
  examples: [{ rule: { kind: 'column', column: 'Town' }, from: { Town: 'Larkmere' }, gives: 'Larkmere' }],
  suits: (field) => !takesOneOf(field),
  begin: (_, column) => ({ kind: 'column', column: column?.name ?? '' }),
  parse: ({ column }) => (typeof column === 'string' ? { kind: 'column', column } : null),
  readsColumns: (rule) => [rule.column],
  with: (rule, change) => ({ ...rule, column: change.column(rule.column) }),
  make: (rule, { row }) => row.cell(rule.column),
  sentence: (rule) => [{ column: rule.column }],
};
