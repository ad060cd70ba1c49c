import { t } from '../words/words.js';
import type { Field } from '../pdf/field.js';
import { takeCell } from './choose.js';
import type { FillContext } from './fill-context.js';
import * as kinds from './kinds.js';
import type { Column } from '../tables/record.js';
import type { Row } from './row.js';
import { blankFor, isCannot } from './rule.js';
import type { Made, RuleExample, RuleKind, RuleResult, SentencePart, Work } from './rule.js';

export type FillRule = RuleOf<(typeof kinds)[keyof typeof kinds]>;
type RuleOf<Kind> = Kind extends RuleKind<infer Rule> ? Rule : never;

/** In the order in which they are offered. */
export const ruleKinds = (Object.keys(kinds) as FillRule['kind'][]).sort((one, other) => kinds[one].order - kinds[other].order);

/** By their names. Asked for every field of every record: a plain object answers sooner than a module does. */
const table = { ...kinds } as unknown as Record<FillRule['kind'], RuleKind<FillRule>>;
const named = (kind: FillRule['kind']): RuleKind<FillRule> => table[kind];
const kindOf = (rule: FillRule): RuleKind<FillRule> => named(rule.kind);

/** What a kind of rule says of itself. */
export interface RuleFacts {
  kind: FillRule['kind'];
  title: string;
  help: string;
  parts: Readonly<Record<string, string>>;
  examples: readonly RuleExample<FillRule>[];
  /** Other rules can be put together from it. */
  makesValue: boolean;
  /** It says how one field takes a value: no part of another rule, and none for an answer over several boxes. */
  isOutermost: boolean;
}
export const ruleFacts = (kind: FillRule['kind']): RuleFacts => {
  const { title, help, parts, examples, make, outermost = false } = named(kind);
  return { kind, title, help, parts, examples, makesValue: make !== undefined && !outermost, isOutermost: outermost };
};
export const ruleTitle = (kind: FillRule['kind']): string => named(kind).title;

/** Kinds of rules that are offered for a field; the first is the usual one. @param as for a part of another rule, or for one whose value is worked on */
export const rulesFor = (field: Field, as: 'whole' | 'part' | 'value' = 'whole'): RuleFacts[] =>
  ruleKinds
    .filter((kind) => named(kind).suits(field))
    .map(ruleFacts)
    .filter(({ makesValue, isOutermost }) => as === 'whole' || (!isOutermost && (as === 'part' || makesValue)));

/** Whether other rules can be put together from a rule: it makes a value whatever field takes it. */
export const makesValue = (rule: FillRule): boolean =>
  kindOf(rule).make !== undefined && !kindOf(rule).outermost && innerRules(rule).every(makesValue);
/** What gives the value: of a rule that says how a field takes it, the rule inside. */
const givingRule = (rule: FillRule): FillRule => (kindOf(rule).outermost ? innerRules(rule)[0]! : rule);
const innerRules = (rule: FillRule): FillRule[] => kindOf(rule).inner?.(rule) ?? [];

/** A rule of a kind to begin with, keeping what it can of the one before. */
export function beginRule(kind: FillRule['kind'], field: Field, columns: readonly Column[], before: FillRule | undefined): FillRule {
  const giving = before && givingRule(before);
  const kept = giving ? readsColumns(giving)[0] : undefined;
  const column = columns.find(({ name }) => name === kept) ?? columns[0];
  return named(kind).begin(field, column, giving && giving.kind !== 'blank' && makesValue(giving) ? giving : undefined);
}

/** The columns that a rule reads, each once; asked before any copy exists, to find those that are missing. */
export function readsColumns(rule: FillRule): string[] {
  const inner = innerRules(rule);
  const own = kindOf(rule).readsColumns?.(rule) ?? [];
  return inner.length === 0 ? own : [...new Set([...own, ...inner.flatMap(readsColumns)])];
}

/** The rule with a column of another name. */
export function renameColumn(rule: FillRule, from: string, to: string): FillRule {
  return readsColumns(rule).includes(from)
    ? (kindOf(rule).with?.(rule, {
        rule: (one) => renameColumn(one, from, to),
        column: (name) => (name === from ? to : name),
      }) ?? rule)
    : rule;
}

export const ruleSentence = (rule: FillRule): SentencePart[] => kindOf(rule).sentence(rule, ruleSentence);

/** A record that rules are worked out for. */
class RecordWork implements Work {
  constructor(
    readonly row: Row,
    readonly context: FillContext,
  ) {}

  make(rule: FillRule): Made {
    const { make, title } = kindOf(rule);
    return make ? make(rule, this) : { cannot: t`“${title}” cannot be a part of another rule.`, column: '', text: '' };
  }

  columns(rule: FillRule): string {
    return readsColumns(rule).join(', ');
  }

  evaluate(rule: FillRule, field: Field): RuleResult {
    const { evaluate } = kindOf(rule);
    if (evaluate) return evaluate(rule, field, this);
    const made = this.make(rule);
    return isCannot(made) ? { value: blankFor(field), cannot: made } : takeCell(field, made, () => this.columns(rule));
  }
}

/** Works out rules for one record. */
export const workOn = (row: Row, context: FillContext): Work => new RecordWork(row, context);
export const evaluateRule = (rule: FillRule, field: Field, row: Row, context: FillContext): RuleResult =>
  workOn(row, context).evaluate(rule, field);

const standsAsIs = (rule: FillRule): boolean => kindOf(rule).asItStands === true && innerRules(rule).every(standsAsIs);

/**
 * Tells the texts of a record that neither it nor the rules hold as they stand, such as the name of a month: faces are wanted for them too.
 * Null: there are none, for any record.
 */
export function textsMade(maps: readonly Readonly<Record<string, FillRule>>[]): ((row: Row, context: FillContext) => string[]) | null {
  const rules = maps.flatMap((map) => Object.values(map)).map((rule) => (rule.kind === 'piece' ? rule.of : givingRule(rule)));
  const making = rules.filter((rule) => !standsAsIs(rule) && makesValue(rule));
  if (making.length === 0) return null;
  return (row, context) => {
    const work = workOn(row, context);
    return making.flatMap((rule) => {
      const made = work.make(rule);
      return isCannot(made) ? [] : [made.text];
    });
  };
}

/** How deep rules may be put together from rules. */
const DEEPEST = 12;

/** Something that is given as a rule, read as one: of a rule nothing is kept that it does not have. Null with what is wrong where it is none. */
export function parseRule(given: unknown): { rule: FillRule; fault: null } | { rule: null; fault: string } {
  let fault: string | null = null;
  const failed = (why: string): null => {
    // What is wrong innermost is what is wrong.
    fault ??= why;
    return null;
  };
  const read = (one: unknown, depth: number): FillRule | null => {
    if (typeof one === 'string') return { kind: 'column', column: one };
    if (typeof one !== 'object' || one === null) return failed(t`it is not a rule`);
    if (depth > DEEPEST) return failed(t`it is nested more than ${DEEPEST} deep`);
    const { kind } = one as { kind?: unknown };
    if (typeof kind !== 'string' || !Object.hasOwn(kinds, kind)) return failed(t`there is no rule called “${String(kind).slice(0, 40)}”`);
    const rule = named(kind as FillRule['kind']).parse(one as Record<string, unknown>, (inner, forField) => {
      const own = read(inner, depth + 1);
      const isPart = own === null || (!kindOf(own).outermost && (forField || makesValue(own)));
      return isPart ? own : failed(t`“${own.kind}” cannot be a part of the rule “${kind}”`);
    });
    return rule ?? failed(t`a part of the rule “${kind}” is missing`);
  };
  const rule = typeof given === 'string' ? failed(t`it is not a rule`) : read(given, 0);
  return rule ? { rule, fault: null } : { rule: null, fault: fault ?? t`it is not a rule` };
}
