import type { Field } from '../pdf/field.js';
import type { FillContext } from './fill-context.js';
import { blank } from './kinds/blank.js';
import type { BlankRule } from './kinds/blank.js';
import { column } from './kinds/column.js';
import type { ColumnRule } from './kinds/column.js';
import { compose } from './kinds/compose.js';
import type { ComposeRule } from './kinds/compose.js';
import { text } from './kinds/text.js';
import type { TextRule } from './kinds/text.js';
import { translate } from './kinds/translate.js';
import type { TranslateRule } from './kinds/translate.js';
import type { Row } from './row.js';
import type { RuleKind, RuleResult, SentencePart } from './rule.js';

export type FillRule = BlankRule | TextRule | ColumnRule | ComposeRule | TranslateRule;

/** Every kind of fill rule. A new one is a file in kinds/ and a line here. */
const kinds: { [K in FillRule['kind']]: RuleKind<Extract<FillRule, { kind: K }>> } = { blank, text, column, compose, translate };
export const ruleKinds = Object.keys(kinds) as FillRule['kind'][];

const kindOf = (rule: FillRule): RuleKind<FillRule> => kinds[rule.kind] as unknown as RuleKind<FillRule>;

/** The columns that a rule reads; asked before any copy exists, to find those that are missing. */
export const readsColumns = (rule: FillRule): string[] => kindOf(rule).readsColumns(rule);
export const evaluateRule = (rule: FillRule, field: Field, row: Row, context: FillContext): RuleResult =>
  kindOf(rule).evaluate(rule, field, row, context);
export const ruleSentence = (rule: FillRule): SentencePart[] => kindOf(rule).sentence(rule);
export const renameColumn = (rule: FillRule, from: string, to: string): FillRule => kindOf(rule).rename(rule, from, to);

const isText = (value: unknown): boolean => typeof value === 'string';
const isPart = (part: unknown): boolean => {
  const { column, text } = (part ?? {}) as { column?: unknown; text?: unknown };
  return isText(column) !== isText(text);
};
const shapes: { [K in FillRule['kind']]: (rule: Record<string, unknown>) => boolean } = {
  blank: () => true,
  text: ({ text }) => isText(text),
  column: ({ column }) => isText(column),
  compose: ({ parts }) => Array.isArray(parts) && parts.every(isPart),
  translate: ({ column, table }) =>
    isText(column) &&
    Array.isArray(table) &&
    table.every((one) => isText((one as Record<string, unknown> | null)?.from) && isText((one as Record<string, unknown> | null)?.to)),
};

/** What is wrong with something that is given as a rule; null: it is one. */
export function ruleFault(rule: unknown): string | null {
  if (typeof rule !== 'object' || rule === null) return 'it is no rule';
  const { kind } = rule as { kind?: unknown };
  if (!ruleKinds.includes(kind as FillRule['kind'])) return `there is no rule called “${String(kind).slice(0, 40)}”`;
  return shapes[kind as FillRule['kind']](rule as Record<string, unknown>) ? null : `a part of the rule “${String(kind)}” is missing`;
}
