import type { Field } from '../pdf/field.js';
import type { Column } from '../tables/record.js';
import { isButtonWithStates, isChoice } from '../pdf/field.js';
import type { FieldValue } from '../pdf/value.js';
import type { FillContext } from './fill-context.js';
import type { Row } from './row.js';

/** The value for a field that a rule gives. `untranslated`: the text for which there is no translation, and what is accepted. */
export interface RuleResult {
  value: FieldValue;
  untranslated?: { column: string; text: string; accepted: string[] };
}

/** A piece of a rule's sentence on the screen. */
export type SentencePart = { column: string } | { text: string } | { say: string };

/** Everything about one kind of rule. */
export interface RuleKind<Rule extends { kind: string }> {
  kind: Rule['kind'];
  /** Its place among the kinds that are offered, by tens. */
  order: number;
  /** What it is called where a person chooses it. */
  title: string;
  /** Whether it is offered for a field. */
  suits(field: Field): boolean;
  /** The rule with which a person begins. @param column the one that the field had before, or the first; undefined: there is none */
  begin(field: Field, column: Column | undefined): Rule;
  /** Reads what is given as such a rule; null: a part of it is missing. */
  parse(given: Record<string, unknown>): Rule | null;
  readsColumns(rule: Rule): string[];
  evaluate(rule: Rule, field: Field, row: Row, context: FillContext): RuleResult;
  sentence(rule: Rule): SentencePart[];
  /** The rule with a column of another name. */
  rename(rule: Rule, from: string, to: string): Rule;
}

/** Whether a field takes one of several values, in place of any text. */
export const takesOneOf = (field: Field): boolean => isButtonWithStates(field) || isChoice(field);

/** The value that leaves a field of this kind empty. */
export const blankFor = (field: Field): FieldValue =>
  field.kind === 'checkbox' || field.kind === 'radio' ? false : field.kind === 'list' ? [] : '';
