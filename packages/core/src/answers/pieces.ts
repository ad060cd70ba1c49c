import { meaningOf } from '../page/label-meaning.js';
import type { Field } from '../pdf/field.js';
import type { AnswerReason, Piece } from './answer.js';
import type { PlacedField } from './printed-form.js';

/** Words for the parts of a date, as captions, tooltips and ends of names (common practice, no source). */
const PARTS: readonly ['day' | 'month' | 'year', RegExp][] = [
  ['day', /^(?:dd?|day|tag|jour|d[ií]a|giorno|dia|dag|päivä|den|nap|dzień|ziua|jj?)$/],
  ['month', /^(?:mm?|month|mon|monat|mois|mes|mese|m[êe]s|maand|månad|måned|kuukausi|měsíc|hónap|miesiąc|luna)$/],
  ['year', /^(?:y{1,4}|year|yr|jahr|an|année|annee|a[ñn]o|anno|ano|jaar|år|vuosi|rok|év|anul|aaaa|jjjj|tttt)$/],
];
const partOf = (words: string): 'day' | 'month' | 'year' | null =>
  PARTS.find(([, pattern]) => pattern.test(words.toLowerCase().replace(/[^\p{L}]/gu, '')))?.[0] ?? null;

/** The last word of a technical name: `dob_day`, `birthMonth`, `date.yyyy[0]`. */
const lastWord = (name: string): string =>
  name
    .replace(/\[\d+\]/g, '')
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .split(/[^\p{L}]+/u)
    .filter(Boolean)
    .at(-1) ?? '';

/** The part of a date that a box is named as; null: none. */
export function datePart({ name, label, tooltip }: Field): 'day' | 'month' | 'year' | null {
  for (const words of [tooltip, label]) {
    if (!words) continue;
    const found =
      partOf(words) ??
      partOf(
        words
          .split(/[\s,:(]+/)
          .filter(Boolean)
          .at(-1) ?? '',
      );
    if (found) return found;
  }
  return partOf(lastWord(name));
}

const CENTS = /^(?:cents?|cts?|pence|p|rappen|rp|öre|øre|cent\.?|céntimos|centimes|00)$/;
/** Whether a box is named as the cents of an amount. */
export const isCents = ({ name, label, tooltip }: Field): boolean =>
  [tooltip, label?.split(/[\s,]+/).at(-1), lastWord(name)].some((words) => words && CENTS.test(words.toLowerCase().trim()));

/** Characters that fit into a box, by its limit or else by its width. */
export const roomOf = ({ field, box }: PlacedField): number => field.maxLength ?? Math.max(1, Math.round((box[2] - box[0]) / 9));

/** The parts of a chain of boxes whose words name a date, in the order of a page's country. */
function dateParts(chain: readonly PlacedField[], signs: readonly (string | null)[], label: string, isMonthFirst: boolean): Piece[] | null {
  const named = chain.map(({ field }) => datePart(field));
  if (named.every((part) => part !== null) && new Set(named).size === named.length) return named.map((what) => ({ what: what! }));
  const isDate = meaningOf(label) === 'date' || /\bborn\b|birth|geburt|naissance|nacimiento/i.test(label);
  const limits = chain.map(({ field }) => field.maxLength);
  const isSlashed = signs.every((sign) => sign !== null && /^[/.\-–]$/.test(sign.trim()));
  if (chain.length !== 3) {
    // Month and year of a card, or a year whose century is printed.
    return chain.length === 2 && isDate && isSlashed ? [{ what: 'month' }, { what: 'year' }] : null;
  }
  const widths = chain.map(roomOf);
  const isYearFirst = (limits[0] ?? widths[0]!) >= 4 && (limits[1] ?? widths[1]!) <= 3;
  const shape = limits.every((limit) => limit !== null)
    ? /^(?:2,2,[24]|4,2,2)$/.test(limits.join())
    : isSlashed && widths.every((width) => width <= 8);
  if (!shape || !(isDate || (isSlashed && signs[0]!.trim() === '/'))) return null;
  const order = isYearFirst
    ? (['year', 'month', 'day'] as const)
    : isMonthFirst
      ? (['month', 'day', 'year'] as const)
      : (['day', 'month', 'year'] as const);
  return order.map((what) => ({ what }));
}

/** Boxes of one row that may be one answer, told as what they are of it. */
export interface Pieces {
  pieces: Piece[];
  reason: AnswerReason;
}

/** Labels of numbers that are written in groups (common practice, no source). */
const NUMBERED =
  /\bno\b|number|nummer|nr\b|n°|número|numéro|numero|\bssn\b|\bein\b|\btin\b|\biban\b|\bbic\b|code|identif|steuer|account|konto|\bid\b|security|routing|zip|plz|postal|insurance|reference|aktenzeichen|telephone|phone|fax|mobile/i;

/**
 * Tells what boxes of one row are of one answer; null: they are none.
 * @param signs what is printed between them, one fewer
 * @param label of the first
 */
export function piecesOf(
  chain: readonly PlacedField[],
  signs: readonly (string | null)[],
  label: string,
  isMonthFirst: boolean,
): Pieces | null {
  if (chain.length < 2) return null;
  const date = dateParts(chain, signs, label, isMonthFirst);
  if (date) return { pieces: date, reason: 'date' };
  const [first, second] = chain as [PlacedField, PlacedField];
  const meaning = meaningOf(label);
  const rooms = chain.map(roomOf);
  const last = chain.at(-1)!;
  const isBareEnd = second.field.label === null || second.field.label === first.field.label;
  const isPoint = signs[0] === null || /^[.,]$/.test(signs[0]!.trim());
  if (
    chain.length === 2 &&
    (isCents(second.field) ||
      (isBareEnd && isPoint && second.field.maxLength === 2 && rooms[0]! > 4) ||
      (meaning === 'amount' && (second.field.maxLength === 2 || rooms[1]! <= 3) && rooms[0]! > rooms[1]!))
  )
    return { pieces: [{ what: 'whole units' }, { what: 'cents' }], reason: 'amount' };
  if (meaning === 'telephone' && chain.length === 2 && rooms[0]! < rooms[1]!)
    return { pieces: [{ what: 'area code' }, { what: 'number' }], reason: 'telephone' };
  const ofOne = chain.every(
    ({ field, box }) => (field.maxLength === 1 || (field.maxLength === null && box[2] - box[0] < 20)) && box[2] - box[0] < 30,
  );
  const isGrouped =
    chain.every(({ field }) => field.maxLength !== null && field.maxLength <= 12) &&
    (NUMBERED.test(label) || signs.every((sign) => sign !== null && /^[\s\-–/.()]+$/.test(sign)) || meaning !== null);
  if ((ofOne && chain.length >= 3) || isGrouped) {
    let at = 0;
    const pieces = chain.map(({ field }): Piece => {
      const from = at + 1;
      at += field.maxLength ?? 1;
      return { what: 'characters', from, to: at };
    });
    return { pieces, reason: 'characters' };
  }
  // A social security number without limits: 3-2-4 by its widths and its dashes.
  if (
    chain.length === 3 &&
    NUMBERED.test(label) &&
    rooms[1]! < rooms[0]! &&
    rooms[0]! <= rooms[2]! &&
    last.box[2] - first.box[0] < 240 &&
    signs.some((sign) => sign?.trim() === '-' || sign?.trim() === '–')
  )
    return {
      pieces: [
        [1, 3],
        [4, 5],
        [6, 9],
      ].map(([from, to]) => ({ what: 'characters', from: from!, to: to! })),
      reason: 'characters',
    };
  return null;
}
