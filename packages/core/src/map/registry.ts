import type { Field } from '../pdf/field.js';
import type { FillContext } from './fill-context.js';
import * as kinds from './kinds.js';
import type { Column } from '../tables/record.js';
import type { Row } from './row.js';
import type { RuleKind, RuleResult, SentencePart } from './rule.js';

export type FillRule = RuleOf<(typeof kinds)[keyof typeof kinds]>;
type RuleOf<Kind> = Kind extends RuleKind<infer Rule> ? Rule : never;

/** In the order in which they are offered. */
export const ruleKinds = (Object.keys(kinds) as FillRule['kind'][]).sort((one, other) => kinds[one].order - kinds[other].order);

const kindOf = (rule: FillRule): RuleKind<FillRule> => kinds[rule.kind] as unknown as RuleKind<FillRule>;

/** Kinds of rules that are offered for a field, with their names; the first is the usual one. */
export const rulesFor = (field: Field): { kind: FillRule['kind']; title: string }[] =>
  ruleKinds.map((kind) => kinds[kind] as unknown as RuleKind<FillRule>).filter((kind) => kind.suits(field));

export const ruleTitle = (kind: FillRule['kind']): string => kinds[kind].title;

/** A rule of a kind to begin with, keeping what it can of the one before. */
export function beginRule(kind: FillRule['kind'], field: Field, columns: readonly Column[], before: FillRule | undefined): FillRule {
  const kept = before ? readsColumns(before)[0] : undefined;
  return kinds[kind].begin(field, columns.find(({ name }) => name === kept) ?? columns[0]);
}

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
