import type { Piece } from '../../answers/answer.js';
import { pieceWords } from '../../answers/answer.js';
import type { PieceBox } from '../../answers/split-answer.js';
import { pieceOf } from '../../answers/split-answer.js';
import type { Field, FieldOption } from '../../pdf/field.js';
import { normalised } from '../choose.js';
import type { Row } from '../row.js';
import { blankFor } from '../rule.js';
import type { RuleKind, RuleResult } from '../rule.js';
import type { ColumnRule } from './column.js';
import { column } from './column.js';
import type { ComposeRule } from './compose.js';
import { compose } from './compose.js';
import type { TextRule } from './text.js';
import { text } from './text.js';

/** What gives a whole answer, of which each box takes its piece. */
export type WholeRule = ColumnRule | ComposeRule | TextRule;

/** A tick of several: what it stands for, and what the others do. */
export interface TickBox {
  option: FieldOption;
  among: FieldOption[];
  /** Any number of them may be set: the answer names them with commas. */
  isSeveral: boolean;
}

/** The piece that one box takes of an answer that stands over several. */
export interface PieceRule {
  kind: 'piece';
  of: WholeRule;
  box: PieceBox | TickBox;
}

const wholeKinds = { column, compose, text } as const;
const wholeOf = (rule: WholeRule): RuleKind<WholeRule> => wholeKinds[rule.kind] as unknown as RuleKind<WholeRule>;

/** A box without the limits of this one, in which the whole answer would stand. */
const wholeField = (field: Field): Field => ({
  ...field,
  kind: 'text',
  flags: [],
  maxLength: null,
  options: [],
  onValues: [],
  format: null,
  widgets: [],
});
const YES = /^(?:yes|ja|oui|s[ií]|true|y|j|1|x|on)$/i;
const NO = /^(?:no|nein|non|false|n|0|off)$/i;

function isMeant(words: string, { value, label }: FieldOption): boolean {
  const [said, one, other] = [normalised(words), normalised(value), normalised(label)];
  return said === one || said === other || (YES.test(said) && YES.test(other)) || (NO.test(said) && NO.test(other));
}

function tick(field: Field, whole: string, columnName: string, { option, among, isSeveral }: TickBox): RuleResult {
  const said = (isSeveral ? whole.split(/[,;\n]/) : [whole]).map((one) => one.trim()).filter(Boolean);
  const strange = said.find((one) => !among.some((other) => isMeant(one, other)));
  if (strange !== undefined)
    return { value: false, untranslated: { column: columnName, text: strange, accepted: among.map(({ label }) => label) } };
  return { value: said.some((one) => isMeant(one, option)) ? (field.onValues[0] ?? option.value) : false };
}

function piece(field: Field, rule: PieceRule, row: Row, whole: string, columnName: string): RuleResult {
  if ('among' in rule.box) return tick(field, whole, columnName, rule.box);
  const typed = rule.of.kind === 'column' ? row.cell(rule.of.column).value : null;
  const taken = pieceOf(whole, typed, rule.box);
  if (taken !== null) return { value: taken };
  const accepted = ['day', 'month', 'year'].includes(rule.box.piece.what) ? ['a date, such as 2027-02-01'] : ['an amount, such as 1234.50'];
  return { value: blankFor(field), untranslated: { column: columnName, text: whole, accepted } };
}

const isPiece = (given: unknown): given is Piece => {
  const { what, from, to, number } = (given ?? {}) as Record<string, unknown>;
  if (what === 'characters') return typeof from === 'number' && typeof to === 'number';
  if (what === 'line') return typeof number === 'number';
  return ['day', 'month', 'year', 'whole units', 'cents', 'area code', 'number'].includes(String(what));
};
const optionFrom = (given: unknown): FieldOption | null => {
  const { value, label } = (given ?? {}) as Record<string, unknown>;
  return typeof value === 'string' && typeof label === 'string' ? { value, label } : null;
};

function boxFrom(given: unknown): PieceRule['box'] | null {
  const { piece: taken, isLast, rooms, digits, option, among, isSeveral } = (given ?? {}) as Record<string, unknown>;
  if (among !== undefined) {
    const own = optionFrom(option);
    const others = Array.isArray(among) ? among.map(optionFrom) : [];
    return own && others.length > 0 && others.every((one) => one !== null)
      ? { option: own, among: others, isSeveral: isSeveral === true }
      : null;
  }
  if (!isPiece(taken)) return null;
  return {
    piece: taken,
    isLast: isLast === true,
    ...(Array.isArray(rooms) && { rooms: rooms.filter((room): room is number => typeof room === 'number' && room > 0) }),
    ...(typeof digits === 'number' && { digits }),
  };
}

function wholeFrom(given: unknown): WholeRule | null {
  const { kind } = (given ?? {}) as { kind?: unknown };
  const known = kind === 'column' || kind === 'compose' || kind === 'text' ? wholeKinds[kind] : null;
  return known ? (known.parse(given as Record<string, unknown>) as WholeRule | null) : null;
}

export const pieceRule: RuleKind<PieceRule> = {
  kind: 'piece',
  order: 60,
  title: 'a piece of an answer',
  // It is made for all boxes of an answer at once, never chosen for one of them.
  suits: () => false,
  begin: (_, first) => ({
    kind: 'piece',
    of: { kind: 'column', column: first?.name ?? '' },
    box: { piece: { what: 'characters', from: 1, to: 1 }, isLast: false },
  }),
  parse({ of, box }) {
    const [whole, own] = [wholeFrom(of), boxFrom(box)];
    return whole && own ? { kind: 'piece', of: whole, box: own } : null;
  },
  readsColumns: ({ of }) => wholeOf(of).readsColumns(of),
  evaluate(rule, field, row, context) {
    const { value } = wholeOf(rule.of).evaluate(rule.of, wholeField(field), row, context);
    return piece(field, rule, row, typeof value === 'string' ? value : '', pieceRule.readsColumns(rule).join(', '));
  },
  sentence: ({ of, box }) => [...wholeOf(of).sentence(of), { say: 'among' in box ? box.option.label : pieceWords(box.piece) }],
  rename: (rule, from, to) => ({ ...rule, of: wholeOf(rule.of).rename(rule.of, from, to) }),
};
