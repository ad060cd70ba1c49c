import { t } from '../words/words.js';
import { distance } from 'fastest-levenshtein';
import { fieldLabel, isButtonWithStates, isChoice, isFillable } from '../pdf/field.js';
import type { Field } from '../pdf/field.js';
import { headingWords } from '../tables/heading-words.js';
import { PEOPLE, nameColumns } from '../tables/name-columns.js';
import type { Column } from '../tables/record.js';
import { normalised } from './choose.js';
import type { FieldMap } from './field-map.js';
import { suggestTable } from './suggest-table.js';
import type { FillRule } from './registry.js';
import { readsColumns } from './registry.js';
import { takesOneOf } from './rule.js';

const alike = (a: string, b: string): number => {
  if (a === b) return 1;
  const longest = Math.max(a.length, b.length);
  if (longest < 4) return 0;
  const near = 1 - distance(a, b) / longest;
  return near >= 0.75 ? near : a.length >= 4 && b.length >= 4 && (a.startsWith(b) || b.startsWith(a)) ? 0.7 : 0;
};

/** How well two sets of words go together, 0 to 1: shared words over all words, the shorter set weighing more. */
function likeness(a: readonly string[], b: readonly string[]): number {
  if (a.length === 0 || b.length === 0) return 0;
  const best = (word: string, others: readonly string[]): number => Math.max(...others.map((other) => alike(word, other)));
  const ab = a.reduce((sum, word) => sum + best(word, b), 0) / a.length;
  const ba = b.reduce((sum, word) => sum + best(word, a), 0) / b.length;
  return Math.min(ab, ba) * 0.65 + Math.max(ab, ba) * 0.35;
}

/** The column whose name is most like another name; null: none is like it. */
export function columnLike<Named extends Pick<Column, 'name'>>(name: string, columns: readonly Named[]): Named | null {
  const own = headingWords(name);
  const [best] = columns
    .map((column) => ({ column, like: likeness(own, headingWords(column.name)) }))
    .sort((one, other) => other.like - one.like);
  return best && best.like >= 0.55 ? best.column : null;
}

/** How well the sample values of a column suit a field, -1 to 1. */
function suits(field: Field, column: Column): number {
  if (field.kind === 'checkbox') return column.kind === 'yes-no' ? 0.3 : column.distinct > 6 ? -0.6 : -0.1;
  if (isChoice(field) || field.kind === 'radio') {
    const accepted = new Set([...field.options.flatMap((one) => [one.label, one.value]), ...field.onValues].map(normalised));
    const hits = column.examples.filter((example) => accepted.has(normalised(example))).length;
    return column.examples.length === 0 ? 0 : hits > 0 ? 0.5 * (hits / column.examples.length) : -0.3;
  }
  if (column.kind === 'yes-no') return -0.3;
  return field.maxLength !== null && column.longest.length > field.maxLength * 1.5 ? -0.15 : 0;
}

/** The rule with which a field takes a column, as its kind needs it. */
export function ruleForColumn(field: Field, column: Column): FillRule {
  if (isButtonWithStates(field) || isChoice(field)) return { kind: 'translate', column: column.name, table: suggestTable(field, column) };
  return { kind: 'column', column: column.name };
}

/** Below this a match is no suggestion; from `SURE` on it needs no second look. */
const THRESHOLD = 0.62;
export const SURE = 0.85;

/** A rule that is proposed for a field. */
export interface Suggestion {
  rule: FillRule;
  /** From 0 to 1. */
  confidence: number;
  /** Why, in words. */
  why: string;
}

/** How a field was filled in an earlier mapping of this office. A rule of one box of an answer stands for the whole of it. */
export interface Learned {
  field: string;
  rule: FillRule;
  /** Name of the mailing. */
  mailing: string;
  /** It is a revision of the same form; else another form that has a field of the same name. */
  isSameForm: boolean;
}

/** What an earlier mapping says, as long as its columns are there. */
function remembered(field: Field, columns: readonly Column[], learned: readonly Learned[]): Suggestion | null {
  const there = new Set(columns.map(({ name }) => name));
  const found = learned
    .filter((one) => one.field === field.name && one.rule.kind !== 'blank')
    .map((one) => ({ ...one, rule: one.rule.kind === 'piece' ? one.rule.of : one.rule }))
    .filter(({ rule }) => readsColumns(rule).length > 0 && readsColumns(rule).every((name) => there.has(name)))
    .sort((one, other) => Number(other.isSameForm) - Number(one.isSameForm))[0];
  if (!found) return null;
  return {
    rule: found.rule,
    confidence: found.isSameForm ? 0.98 : 0.8,
    why: found.isSameForm ? t`as in “${found.mailing}”` : t`a field of this name was filled so in “${found.mailing}”`,
  };
}

/** The ways in which a field says what it is for, each with what it is called. */
function sayings(field: Field): [words: string[], called: string, weight: number][] {
  const label = fieldLabel(field);
  const own = headingWords(label);
  return [
    [
      own,
      field.labelFrom === 'tooltip' ? t`its tooltip “${label}”` : field.labelFrom === 'name' ? t`its name` : t`its label “${label}”`,
      1,
    ],
    [headingWords(field.name.split('.').slice(-1).join(' ')), t`its name`, 1],
    [headingWords(field.name), t`its whole name`, 0.98],
    ...(field.section
      ? [[[...headingWords(field.section), ...own], t`“${field.section}” and its label`, 0.97] as [string[], string, number]]
      : []),
  ];
}

/** Words beside “name” that leave it the name of a person; common practice, no source. */
const PERSONS = new Set([
  ...PEOPLE,
  ...'full complete whole print printed account receipt vollstandig vollstandiger for and number'.split(' '),
]);

/** What a field asks for of a person's name. */
type AskedName = 'whole' | 'surname first' | 'surname' | 'person';

const withoutPersons = (words: readonly string[]): string[] => words.filter((word) => !PERSONS.has(word));
/** Whose name a field asks for, as far as its label and its section tell. */
const whoseName = ({ section }: Field, label: readonly string[]): string =>
  [section, ...label.filter((word) => PERSONS.has(word))].join(' ');

/**
 * What a text field asks for of the name of a person; null: nothing, as the name of a bank or a street is none.
 * @param label its words @param name those of its own name @param isBesideFirstName the form asks for the first name of the same person elsewhere
 */
function asksForPerson(field: Field, label: readonly string[], name: readonly string[], isBesideFirstName: boolean): AskedName | null {
  if (field.kind !== 'text') return null;
  const bare = withoutPersons(label);
  // “Name, Vorname” asks for both.
  if (bare.length === 2 && bare.includes('firstname') && bare.some((word) => word === 'name' || word === 'surname'))
    return bare[0] === 'firstname' ? 'whole' : 'surname first';
  if (/first|given|fore|sur|last|family/i.test(`${field.tooltip ?? ''} ${field.name}`)) return null;
  // “Account holder”: whose name else.
  if (bare.length === 0 && label.some((word) => PEOPLE.has(word)) && !label.includes('number')) return 'person';
  const asking = label.includes('name') ? label : name;
  if (!asking.includes('name') || withoutPersons(asking).some((word) => word !== 'name')) return null;
  return isBesideFirstName && !asking.includes('full') ? 'surname' : 'whole';
}

/** A rule for the name of a person of which the columns hold the parts. */
function nameRule(asked: AskedName, firstName: Column, surname: Column): Suggestion {
  const confidence = asked === 'person' ? 0.7 : 0.86;
  if (asked === 'surname')
    return { rule: { kind: 'column', column: surname.name }, confidence, why: t`it asks for a name beside a field for the first name` };
  const [one, mark, other] = asked === 'surname first' ? [surname, ', ', firstName] : [firstName, ' ', surname];
  return {
    confidence,
    rule: { kind: 'compose', parts: [{ column: one.name }, { text: mark }, { column: other.name }] },
    why: t`it asks for a name, of which “${one.name}” and “${other.name}” are the parts`,
  };
}

/** What the samples of a column say for it, in words; empty: nothing. */
function samplesSay(field: Field, column: Column): string {
  const accepted = new Set([...field.options.flatMap((one) => [one.label, one.value]), ...field.onValues].map(normalised));
  const hits = takesOneOf(field) ? column.examples.filter((example) => accepted.has(normalised(example))).length : 0;
  if (hits > 0) return t`, and ${hits} of its ${column.examples.length} samples are among the options`;
  return field.kind === 'checkbox' && column.kind === 'yes-no' ? t`, and it holds yes or no` : '';
}

/**
 * Rules suggested for the fields of a template, from earlier mappings, label, tooltip, name, section, kind, options and sample values. Only fields
 * that no rule fills yet are looked at.
 */
export function suggest(
  fields: readonly Field[],
  columns: readonly Column[],
  map: FieldMap,
  learned: readonly Learned[] = [],
): Record<string, Suggestion> {
  const columnWords = columns.map((column) => headingWords(column.name));
  const suggestions: Record<string, Suggestion> = {};
  const { firstName, surname } = nameColumns(columns);
  /** Whose first name has a field of its own. */
  const firstNames = new Set(
    fields.flatMap((field) => {
      const label = headingWords(fieldLabel(field));
      return withoutPersons(label).join() === 'firstname' ? [whoseName(field, label)] : [];
    }),
  );
  for (const field of fields) {
    if (!isFillable(field) || Object.hasOwn(map, field.name)) continue;
    const known = remembered(field, columns, learned);
    if (known) {
      suggestions[field.name] = known;
      continue;
    }
    const names = sayings(field);
    let best: { column: Column; score: number; why: string } | null = null;
    columns.forEach((column, index) => {
      let [score, why] = [0, ''];
      for (const [own, called, weight] of names) {
        const like = likeness(own, columnWords[index]!) * weight;
        if (like > score) [score, why] = [like, called];
      }
      score += suits(field, column) * 0.35;
      if (!best || score > best.score + 1e-9) best = { column, score, why: t`${why} is like “${column.name}”${samplesSay(field, column)}` };
    });
    const found = best as { column: Column; score: number; why: string } | null;
    const [[label], [name]] = names as [(typeof names)[number], (typeof names)[number]];
    const asked = firstName && surname && asksForPerson(field, label, name, firstNames.has(whoseName(field, label)));
    if (found && found.score >= THRESHOLD && !(asked && found.score < 0.95))
      suggestions[field.name] = { rule: ruleForColumn(field, found.column), confidence: Math.min(1, found.score), why: found.why };
    else if (asked) suggestions[field.name] = nameRule(asked, firstName, surname);
  }
  return suggestions;
}

/** The suggested rules alone. */
export const suggestRules = (fields: readonly Field[], columns: readonly Column[], map: FieldMap): FieldMap =>
  Object.fromEntries(Object.entries(suggest(fields, columns, map)).map(([name, { rule }]) => [name, rule]));
