import type { Field } from '../pdf/field.js';
import { inReadingOrder } from '../page/reading-order.js';
import type { Answer, AnswerReason } from './answer.js';
import type { PlacedField, PrintedForm } from './printed-form.js';

const YES = /^(?:yes|y|ja|oui|s[ií]|sim|tak|ano|áno|igen|kyllä|da|ναι|да|نعم|כן)$/;
const NO = /^(?:no|n|nein|non|não|nao|nie|ne|nem|ei|nee|nej|nei|nu|όχι|нет|لا|לא)$/;
const bare = (words: string): string =>
  words
    .toLowerCase()
    .replace(/[^\p{L}\s]/gu, '')
    .trim();

/** Said where only one of several ticks may be set (common practice, no source). */
const ONE =
  /(?:check|tick|mark|choose|select|circle)\s+(?:only\s+|just\s+)?(?:one|1)\b|one\s+(?:box|only)\b|only\s+one\b|nur\s+ein|(?:bitte\s+)?eine?s?\s+ankreuzen|une\s+seule|un\s+seul|s[oó]lo\s+un|solo\s+un|marque\s+un[ao]\b|uma\s+(?:só|única)|slechts\s+één|één\s+(?:vakje|hokje)/i;
const ALL = /all\s+that\s+apply|alles?\s+zutreffende|mehrfach|toutes?\s+les\s+cases|todas?\s+las\s+que|tutte\s+le|any\s+that\s+apply/i;
/** Answers that shut each other out, whatever the form says (common practice, no source). */
const EXCLUSIVE: readonly RegExp[] = [
  /^(?:male|female|man|woman|m|f|x|other|diverse?|männlich|weiblich|divers|masculino|femenino|homme|femme|masculin|féminin|maschio|femmina|prefer not to say|non-?binary)$/,
  /^(?:mr|mrs|ms|miss|mx|dr|herr|frau|m|mme|mlle|sr|sra|señor|señora|signor|signora)$/,
  /^(?:single|married|divorced|widowed|separated|registered partnership|ledig|verheiratet|geschieden|verwitwet|getrennt lebend|solter[oa]|casad[oa]|divorciad[oa]|viud[oa]|célibataire|mariée?|divorcée?|veufve|veuf|veuve)$/,
  /^(?:full[- ]?time|part[- ]?time|vollzeit|teilzeit)$/,
  /^(?:checking|savings|current account|savings account)$/,
  /^(?:monthly|yearly|quarterly|weekly|half-?yearly|monatlich|jährlich|vierteljährlich)$/,
];

/** Ticks near each other as rows and columns, the longest first. */
function clusters(ticks: readonly PlacedField[]): PlacedField[][] {
  const found: PlacedField[][] = [];
  const sorted = [...ticks].sort((a, b) => a.page - b.page || inReadingOrder(a.box, b.box));
  let row: PlacedField[] = [];
  for (const tick of sorted) {
    const last = row.at(-1);
    if (last && last.page === tick.page && Math.abs(last.box[1] - tick.box[1]) < 5 && tick.box[0] - last.box[2] < 200) row.push(tick);
    else {
      if (row.length > 1) found.push(row);
      row = [tick];
    }
  }
  if (row.length > 1) found.push(row);
  const columns: PlacedField[][] = [];
  for (const tick of [...ticks].sort(
    (a, b) => a.page - b.page || Math.round(a.box[0] / 4) - Math.round(b.box[0] / 4) || b.box[1] - a.box[1],
  )) {
    const last = columns.at(-1)?.at(-1);
    if (last && last.page === tick.page && Math.abs(last.box[0] - tick.box[0]) < 4 && last.box[1] - tick.box[3] < 24)
      columns.at(-1)!.push(tick);
    else columns.push([tick]);
  }
  return [...found, ...columns.filter((column) => column.length > 1)];
}

/** The name of ticks that were made as one group: `c1_1[0]`, `c1_1[1]`. Null: it has no count. */
const groupName = (name: string): string | null => (/\[\d+\]$/.test(name) ? name.replace(/\[\d+\]$/, '') : null);

const answerOf = (ticks: readonly PlacedField[], label: string | null, reason: AnswerReason): Answer => ({
  label,
  section: ticks[0]!.field.section ?? null,
  parts: ticks.map(({ field }) => ({
    field: field.name,
    piece: null,
    option: { value: field.onValues[0] ?? 'Yes', label: field.label ?? field.onValues[0] ?? '' },
  })),
  reason,
});

/** Answers that are given by several ticks: Yes and No, one of a row, some of a row. */
export function tickAnswers(places: readonly PlacedField[], printed: PrintedForm): Answer[] {
  const ticks = places.filter(({ field }) => field.kind === 'checkbox' && field.widgets.length === 1);
  const taken = new Set<Field>();
  const found: Answer[] = [];
  const take = (group: readonly PlacedField[], label: string | null, reason: AnswerReason): void => {
    for (const { field } of group) taken.add(field);
    found.push(answerOf(group, label, reason));
  };
  const words = ({ field }: PlacedField): string => bare(field.label ?? '');

  // What was made as one group has one name and states of its own.
  const byName = new Map<string, PlacedField[]>();
  for (const tick of ticks) {
    const name = groupName(tick.field.name);
    if (name !== null) byName.set(name, [...(byName.get(name) ?? []), tick]);
  }
  for (const group of byName.values()) {
    const states = new Set(group.map(({ field }) => field.onValues[0]));
    if (group.length < 2 || states.size < group.length) continue;
    const isYesNo = group.length === 2 && YES.test(words(group[0]!)) && NO.test(words(group[1]!));
    take(group, printed.ofGroup(group), isYesNo ? 'yes-no' : 'one-of');
  }
  for (const cluster of clusters(ticks)) {
    for (let at = 0; at + 1 < cluster.length; at++) {
      const [one, other] = [cluster[at]!, cluster[at + 1]!];
      if (taken.has(one.field) || taken.has(other.field)) continue;
      if ((YES.test(words(one)) && NO.test(words(other))) || (NO.test(words(one)) && YES.test(words(other))))
        take([one, other], printed.ofGroup([one, other]), 'yes-no');
    }
  }
  for (const cluster of clusters(ticks)) {
    const free = cluster.filter(({ field }) => !taken.has(field));
    if (free.length < 2) continue;
    const label = printed.ofGroup(free);
    const around = `${label ?? ''} ${headOf(free, printed)}`;
    const isExclusive = EXCLUSIVE.some(
      (pattern) => free.filter((tick) => pattern.test(words(tick))).length >= Math.max(2, free.length * 0.6),
    );
    const isRow = Math.abs(free[0]!.box[1] - free[1]!.box[1]) < 5;
    if (ONE.test(around) || isExclusive) take(free, label, 'one-of');
    else if (ALL.test(around) || (label !== null && isRow && free.length >= 2)) take(free, label, 'some-of');
  }
  return found;
}

/** What is printed right above a group of ticks, and before it. */
function headOf(group: readonly PlacedField[], printed: PrintedForm): string {
  const [left, right] = [Math.min(...group.map(({ box }) => box[0])), Math.max(...group.map(({ box }) => box[2]))];
  const top = Math.max(...group.map(({ box }) => box[3]));
  const bottom = Math.min(...group.map(({ box }) => box[1]));
  const { page } = group[0]!;
  return [
    ...printed.phrasesIn(page, [left - 150, top - 12, right + 150, top + 26]),
    ...printed.phrasesIn(page, [left - 150, bottom, left - 4, top]),
  ]
    .map(({ text }) => text)
    .join(' ');
}
