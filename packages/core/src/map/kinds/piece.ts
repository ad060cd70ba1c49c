import { t } from '../../words/words.js';
import type { Piece } from '../../answers/answer.js';
import { pieceWords } from '../../answers/answer.js';
import type { PieceBox } from '../../answers/split-answer.js';
import { pieceOf } from '../../answers/split-answer.js';
import type { Field, FieldOption } from '../../pdf/field.js';
import type { Cell } from '../../tables/record.js';
import { normalised } from '../choose.js';
import type { FillRule } from '../registry.js';
import { blankFor, isCannot } from '../rule.js';
import type { RuleKind, RuleResult } from '../rule.js';

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
  /** What gives the whole answer, of which each box takes its piece. */
  of: FillRule;
  box: PieceBox | TickBox;
}

const YES = /^(?:yes|ja|oui|s[ií]|true|y|j|1|x|on)$/i;
const NO = /^(?:no|nein|non|false|n|0|off)$/i;

function isMeant(words: string, { value, label }: FieldOption): boolean {
  const [text, one, other] = [normalised(words), normalised(value), normalised(label)];
  return text === one || text === other || (YES.test(text) && YES.test(other)) || (NO.test(text) && NO.test(other));
}

function tick(field: Field, whole: string, columnName: string, { option, among, isSeveral }: TickBox): RuleResult {
  const texts = (isSeveral ? whole.split(/[,;\n]/) : [whole]).map((one) => one.trim()).filter(Boolean);
  const strange = texts.find((one) => !among.some((other) => isMeant(one, other)));
  if (strange !== undefined)
    return { value: false, untranslated: { column: columnName, text: strange, accepted: among.map(({ label }) => label) } };
  return { value: texts.some((one) => isMeant(one, option)) ? (field.onValues[0] ?? option.value) : false };
}

function piece(field: Field, rule: PieceRule, { text: whole, value }: Cell, columnName: string): RuleResult {
  if ('among' in rule.box) return tick(field, whole, columnName, rule.box);
  const taken = pieceOf(whole, value, rule.box);
  if (taken !== null) return { value: taken };
  const accepted = ['day', 'month', 'year'].includes(rule.box.piece.what)
    ? [t`a date, such as 2027-02-01`]
    : [t`an amount, such as 1234.50`];
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

export const pieceRule: RuleKind<PieceRule> = {
  kind: 'piece',
  order: 60,
  asItStands: true,
  title: t`a piece of an answer`,
  help: t`Each box of an answer takes its piece of the one value; it is made for all boxes at once.`,
  parts: {
    of: 'the rule that gives the whole answer',
    box: '{ "piece": { "what": "characters", "from", "to" } or { "what": "day", "month", "year", "whole units", "cents", "area code" or "number" } or { "what": "line", "number" }, "isLast", "rooms" of lines in characters, "digits" of a year }; or for a tick { "option": { "value", "label" }, "among": the options of all ticks, "isSeveral" }',
  },
  examples: [
    {
      rule: {
        kind: 'piece',
        of: { kind: 'column', column: 'Account' },
        box: { piece: { what: 'characters', from: 1, to: 4 }, isLast: false },
      },
      from: { Account: 'GB82WEST12345698765432' },
      gives: 'GB82',
    },
  ],
  // It is made for all boxes of an answer at once, never chosen for one of them.
  suits: () => false,
  begin: (_, first) => ({
    kind: 'piece',
    of: { kind: 'column', column: first?.name ?? '' },
    box: { piece: { what: 'characters', from: 1, to: 1 }, isLast: false },
  }),
  parse({ of, box }, read) {
    const [whole, own] = [read(of), boxFrom(box)];
    return whole && own ? { kind: 'piece', of: whole, box: own } : null;
  },
  inner: ({ of }) => [of],
  with: (rule, change) => ({ ...rule, of: change.rule(rule.of) }),
  evaluate(rule, field, work) {
    const made = work.make(rule.of);
    return isCannot(made) ? { value: blankFor(field), cannot: made } : piece(field, rule, made, work.columns(rule.of));
  },
  sentence: ({ of, box }, inner) => [...inner(of), { say: 'among' in box ? box.option.label : pieceWords(box.piece) }],
};
