import { chooseValue } from '../choose.js';
import type { RuleKind } from '../rule.js';

export type ComposePart = { column: string } | { text: string };

/** Text put together from columns and fixed pieces. Pieces between columns that are empty are left out, so that no double spaces remain. */
export interface ComposeRule {
  kind: 'compose';
  parts: ComposePart[];
}

export const compose: RuleKind<ComposeRule> = {
  kind: 'compose',
  readsColumns: (rule) => rule.parts.flatMap((part) => ('column' in part ? [part.column] : [])),
  evaluate(rule, field, row) {
    let composed = '';
    let waiting = '';
    let anyColumn = false;
    for (const part of rule.parts) {
      if ('text' in part) {
        waiting += part.text;
        continue;
      }
      const value = row.cell(part.column).text.trim();
      if (!value) {
        if (composed === '') waiting = '';
        else if (waiting.trim() === '') waiting = '';
        continue;
      }
      anyColumn = true;
      composed += waiting + value;
      waiting = '';
    }
    const hasColumns = rule.parts.some((part) => 'column' in part);
    if (anyColumn || !hasColumns) composed += waiting;
    return chooseValue(field, composed.trim(), compose.readsColumns(rule).join(', '));
  },
  sentence: (rule) => rule.parts.map((part) => ('column' in part ? { column: part.column } : { text: part.text })),
  rename: (rule, from, to) => ({
    ...rule,
    parts: rule.parts.map((part) => ('column' in part && part.column === from ? { column: to } : part)),
  }),
};
