import type { Field } from '../pdf/field.js';
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
export const evaluateRule = (rule: FillRule, field: Field, row: Row): RuleResult => kindOf(rule).evaluate(rule, field, row);
export const ruleSentence = (rule: FillRule): SentencePart[] => kindOf(rule).sentence(rule);
export const renameColumn = (rule: FillRule, from: string, to: string): FillRule => kindOf(rule).rename(rule, from, to);
