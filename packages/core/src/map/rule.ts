import type { Field } from '../pdf/field.js';
import type { Cell, Column } from '../tables/record.js';
import { isButtonWithStates, isChoice } from '../pdf/field.js';
import type { FieldValue } from '../pdf/value.js';
import type { FillContext } from './fill-context.js';
import type { FillRule } from './registry.js';
import type { Row } from './row.js';

/** Text for which there is no translation, and what is accepted. */
export interface Untranslated {
  column: string;
  text: string;
  accepted: string[];
}

/** Why a rule cannot be worked out for a record. A stop, never an empty box in silence. */
export interface Cannot {
  /** A sentence: what is wrong with which value, and what to do. */
  cannot: string;
  /** The column that holds the value; empty: none does. */
  column: string;
  /** The value. */
  text: string;
}

/** What a rule makes of a record, before a field takes it: text as people read it, and the typed value where it has one. */
export type Made = Cell | Cannot;
export const isCannot = (made: object): made is Cannot => 'cannot' in made;

/** The value for a field that a rule gives. With `untranslated` or `cannot` it is blank. */
export interface RuleResult {
  value: FieldValue;
  untranslated?: Untranslated;
  cannot?: Cannot;
}

/** A piece of a rule's sentence on the screen. */
export type SentencePart = { column: string } | { text: string } | { say: string };

/** One record that is being worked out: rules that are put together from rules have those worked out by it. */
export interface Work {
  readonly row: Row;
  readonly context: FillContext;
  make(rule: FillRule): Made;
  evaluate(rule: FillRule, field: Field): RuleResult;
  /** The columns that a rule reads, as a finding names them. */
  columns(rule: FillRule): string;
}

/** Why what a rule makes cannot be worked with. @param why goes on behind the value: “is no number; correct it” */
export const cannotWork = (work: Work, of: FillRule, text: string, why: string): Cannot => ({
  cannot: `“${text}” ${why}.`,
  column: work.columns(of),
  text,
});

/**
 * Reads a part of what is given as a rule; a text alone names a column. Null: it is none.
 * @param forField it gives a field its value; left out: its value is worked on, so that it may not hang on a field
 */
export type ReadRule = (given: unknown, forField?: 'for-field') => FillRule | null;

/** A rule at work: what it is given and what comes out, for help and documentation. */
export interface RuleExample<Rule> {
  rule: Rule;
  /** Texts by column. */
  from: Record<string, string>;
  gives: string;
}

/** Everything about one kind of rule. */
export interface RuleKind<Rule extends { kind: string }> {
  kind: Rule['kind'];
  /** Its place among the kinds that are offered, by tens. */
  order: number;
  /** Every word of its value stands in the record or in the rule, so that the faces for both draw it. Left out: it makes words of its own. */
  asItStands?: true;
  /** What it is called where a person chooses it. */
  title: string;
  /** What it does, in a sentence. */
  help: string;
  /** Its parts in JSON, with what they mean. */
  parts: Readonly<Record<string, string>>;
  examples: readonly RuleExample<Rule>[];
  /** Whether it is offered for a field. */
  suits(field: Field): boolean;
  /**
   * The rule with which a person begins.
   * @param column the one that the field had before, or the first; undefined: there is none
   * @param before what gave the value so far, to be worked on; undefined: nothing did
   */
  begin(field: Field, column: Column | undefined, before: FillRule | undefined): Rule;
  /** It says how a field takes the value, so that no rule can have it as a part. */
  outermost?: true;
  /** Reads what is given as such a rule; null: a part of it is missing. */
  parse(given: Record<string, unknown>, read: ReadRule): Rule | null;
  /** Columns that it reads itself, without those of its rules. Left out: none. */
  readsColumns?(rule: Rule): string[];
  /** The rules that it is put together from. Left out: none. */
  inner?(rule: Rule): FillRule[];
  /** The rule with each of its rules changed, and columns that it reads itself named anew. Left out: it has neither. */
  with?(rule: Rule, change: { rule: (one: FillRule) => FillRule; column: (name: string) => string }): Rule;
  /** What it makes of a record, whatever field takes it. Left out: it hangs on the field. */
  make?(rule: Rule, work: Work): Made;
  /** What it gives a field. Left out: what it makes, as the field takes it. */
  evaluate?(rule: Rule, field: Field, work: Work): RuleResult;
  sentence(rule: Rule, inner: (one: FillRule) => SentencePart[]): SentencePart[];
}

/** Whether a field takes one of several values, in place of any text. */
export const takesOneOf = (field: Field): boolean => isButtonWithStates(field) || isChoice(field);

/** The value that leaves a field of this kind empty. */
export const blankFor = (field: Field): FieldValue =>
  field.kind === 'checkbox' || field.kind === 'radio' ? false : field.kind === 'list' ? [] : '';

/** Text as a rule makes it. */
export const madeText = (text: string): Cell => ({ text, value: text === '' ? null : text });
