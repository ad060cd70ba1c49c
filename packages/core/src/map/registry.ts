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

/** Something that is given as a rule, read as one: of a rule nothing is kept that it does not have. Null with what is wrong where it is none. */
export function parseRule(given: unknown): { rule: FillRule; fault: null } | { rule: null; fault: string } {
  if (typeof given !== 'object' || given === null) return { rule: null, fault: 'it is no rule' };
  const { kind } = given as { kind?: unknown };
  if (typeof kind !== 'string' || !Object.hasOwn(kinds, kind))
    return { rule: null, fault: `there is no rule called “${String(kind).slice(0, 40)}”` };
  const rule = kinds[kind as FillRule['kind']].parse(given as Record<string, unknown>);
  return rule ? { rule, fault: null } : { rule: null, fault: `a part of the rule “${kind}” is missing` };
}
