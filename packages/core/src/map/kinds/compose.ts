import { takesOneOf } from '../rule.js';
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

const OPENING = '([{«„“';
const CLOSING = ')]}»“”';

/** Brackets and quotes of pieces that close in another piece, as places in both: what is left of a pair whose other half is left out goes too. */
function pairsOf(parts: readonly ComposePart[]): { open: [part: number, at: number]; close: [part: number, at: number] }[] {
  const pairs: ReturnType<typeof pairsOf> = [];
  const open: { kind: number; place: [number, number] }[] = [];
  parts.forEach((part, index) => {
    if (!('text' in part)) return;
    [...part.text].forEach((char, at) => {
      const partner = open.findLast(({ kind }) => CLOSING[kind] === char || (kind >= 4 && CLOSING.slice(4).includes(char)));
      if (CLOSING.includes(char) && partner) {
        open.length = open.indexOf(partner);
        pairs.push({ open: partner.place, close: [index, at] });
      } else if (OPENING.includes(char)) open.push({ kind: OPENING.indexOf(char), place: [index, at] });
    });
  });
  return pairs.filter(({ open: [from], close: [to] }) => from !== to);
}

/** Pairs by the parts that they are in; rules come again with every record. */
const pairs = new WeakMap<readonly ComposePart[], ReturnType<typeof pairsOf>>();

/** The pieces that stay, by their places: those around columns that are empty do not. */
function piecesThatStay(parts: readonly ComposePart[], isEmpty: (column: string) => boolean): Set<number> {
  const columns = parts.flatMap((part, index) => ('column' in part ? [{ index, empty: isEmpty(part.column) }] : []));
  const [first, last] = [columns[0], columns.at(-1)];
  const stays = new Set<number>();
  parts.forEach((part, index) => {
    if (!('text' in part)) return;
    const before = columns.filter((column) => column.index < index);
    const next = columns.find((column) => column.index > index);
    // At the ends a piece belongs to all; between two columns to both, and of two pieces around an empty one the later stays.
    const isEnd = !first || index < first.index || index > last!.index;
    if (isEnd ? columns.length === 0 || columns.some(({ empty }) => !empty) : !next!.empty && before.some(({ empty }) => !empty))
      stays.add(index);
  });
  return stays;
}

export const compose: RuleKind<ComposeRule> = {
  kind: 'compose',
  order: 20,
  title: 'composed text',
  suits: (field) => !takesOneOf(field),
  begin: (_, column) => ({ kind: 'compose', parts: [{ column: column?.name ?? '' }] }),
  parse({ parts }) {
    const read = Array.isArray(parts) ? parts.map(partOf) : [];
    return Array.isArray(parts) && read.every((part) => part !== null) ? { kind: 'compose', parts: read } : null;
  },
  readsColumns: (rule) => rule.parts.flatMap((part) => ('column' in part ? [part.column] : [])),
  evaluate(rule, field, row) {
    const { parts } = rule;
    const textOf = (column: string): string => row.cell(column).text.trim();
    const stays = piecesThatStay(parts, (column) => textOf(column) === '');
    let known = pairs.get(parts);
    if (!known) pairs.set(parts, (known = pairsOf(parts)));
    const halves = known
      .filter(({ open, close }) => stays.has(open[0]) !== stays.has(close[0]))
      .flatMap(({ open, close }) => [open, close]);
    const composed = parts.map((part, index) => {
      if ('column' in part) return textOf(part.column);
      if (!stays.has(index)) return '';
      if (halves.length === 0) return part.text;
      return [...part.text].filter((_, at) => !halves.some((half) => half[0] === index && half[1] === at)).join('');
    });
    return chooseValue(field, composed.join('').trim(), compose.readsColumns(rule).join(', '));
  },
  sentence: (rule) => rule.parts.map((part) => ('column' in part ? { column: part.column } : { text: part.text })),
  rename: (rule, from, to) => ({
    ...rule,
    parts: rule.parts.map((part) => ('column' in part && part.column === from ? { column: to } : part)),
  }),
};
