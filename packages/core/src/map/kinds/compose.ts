import { t } from '../../words/words.js';
import type { FillRule } from '../registry.js';
import { isCannot, madeText, takesOneOf } from '../rule.js';
import type { Cannot, ReadRule, RuleKind } from '../rule.js';

export type ComposePart = { column: string } | { text: string } | { rule: FillRule };

/** Text put together from columns, other rules and fixed pieces. Pieces between those that are empty are left out, so that no double spaces remain. */
export interface ComposeRule {
  kind: 'compose';
  parts: ComposePart[];
}

/** A piece as it is given: of a column, of text or of a rule, of one of them alone. */
function partOf(given: unknown, read: ReadRule): ComposePart | null {
  const { column, text, rule } = (given ?? {}) as { column?: unknown; text?: unknown; rule?: unknown };
  if ([column, text, rule].filter((one) => one !== undefined).length !== 1) return null;
  if (rule !== undefined) {
    const inner = read(rule);
    return inner && { rule: inner };
  }
  return typeof column === 'string' ? { column } : typeof text === 'string' ? { text } : null;
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

/** The pieces that stay, by their places: those around values that are empty do not. */
function piecesThatStay(parts: readonly ComposePart[], values: readonly (string | null)[]): Set<number> {
  const columns = values.flatMap((value, index) => (value === null ? [] : [{ index, empty: value === '' }]));
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
  asItStands: true,
  title: t`composed text`,
  help: t`Puts columns, text and other rules together. What stands beside an empty one is left out with it.`,
  parts: { parts: 'list of { "column" }, { "text" } or { "rule" }' },
  examples: [
    {
      rule: { kind: 'compose', parts: [{ column: 'Surname' }, { text: ', ' }, { column: 'First name' }] },
      from: { Surname: 'Quist', 'First name': 'Ada' },
      gives: 'Quist, Ada',
    },
    {
      rule: { kind: 'compose', parts: [{ column: 'Surname' }, { text: ', ' }, { column: 'First name' }] },
      from: { Surname: 'Quist', 'First name': '' },
      gives: 'Quist',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (_, column, before) => ({
    kind: 'compose',
    parts: [before && before.kind !== 'column' && before.kind !== 'blank' ? { rule: before } : { column: column?.name ?? '' }],
  }),
  parse({ parts }, read) {
    if (!Array.isArray(parts)) return null;
    const own = parts.map((part) => partOf(part, read));
    return own.every((part) => part !== null) ? { kind: 'compose', parts: own } : null;
  },
  readsColumns: (rule) => rule.parts.flatMap((part) => ('column' in part ? [part.column] : [])),
  inner: (rule) => rule.parts.flatMap((part) => ('rule' in part ? [part.rule] : [])),
  with: (rule, change) => ({
    ...rule,
    parts: rule.parts.map((part) =>
      'column' in part ? { column: change.column(part.column) } : 'rule' in part ? { rule: change.rule(part.rule) } : part,
    ),
  }),
  make(rule, work) {
    const { parts } = rule;
    let failed: Cannot | null = null;
    const values = parts.map((part): string | null => {
      if ('text' in part) return null;
      const made = 'column' in part ? work.row.cell(part.column) : work.make(part.rule);
      if (!isCannot(made)) return made.text.trim();
      failed ??= made;
      return '';
    });
    if (failed) return failed;
    const stays = piecesThatStay(parts, values);
    let known = pairs.get(parts);
    if (!known) pairs.set(parts, (known = pairsOf(parts)));
    const halves = known
      .filter(({ open, close }) => stays.has(open[0]) !== stays.has(close[0]))
      .flatMap(({ open, close }) => [open, close]);
    const composed = parts.map((part, index) => {
      if (!('text' in part)) return values[index];
      if (!stays.has(index)) return '';
      if (halves.length === 0) return part.text;
      return [...part.text].filter((_, at) => !halves.some((half) => half[0] === index && half[1] === at)).join('');
    });
    return madeText(composed.join('').trim());
  },
  sentence: (rule, inner) =>
    rule.parts.flatMap((part) =>
      'column' in part ? [{ column: part.column }] : 'rule' in part ? inner(part.rule) : [{ text: part.text }],
    ),
};
