import { chooseValue } from '../choose.js';
import type { RuleKind } from '../rule.js';

export type ComposePart = { column: string } | { text: string };

/** Text put together from columns and fixed pieces. Pieces between columns that are empty are left out, so that no double spaces remain. */
export interface ComposeRule {
  kind: 'compose';
  parts: ComposePart[];
}

/** A piece as it is given: of a column or of text, not of both. */
function partOf(given: unknown): ComposePart | null {
  const { column, text } = (given ?? {}) as { column?: unknown; text?: unknown };
  if (typeof column === 'string') return typeof text === 'string' ? null : { column };
  return typeof text === 'string' ? { text } : null;
}

export const compose: RuleKind<ComposeRule> = {
  kind: 'compose',
  parse({ parts }) {
    const read = Array.isArray(parts) ? parts.map(partOf) : [];
    return Array.isArray(parts) && read.every((part) => part !== null) ? { kind: 'compose', parts: read } : null;
  },
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
