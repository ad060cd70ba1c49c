import { t } from '../words/words.js';
import { MailbagError } from '../errors/catalogue.js';
import type { Field, FieldOption } from '../pdf/field.js';
import { fieldLabel } from '../pdf/field.js';
import type { Answer, AnswerPart, AnswerReason, Piece } from './answer.js';
import { datePart } from './pieces.js';

/** As what a person joins fields to one answer. */
export const joinings = ['same', 'characters', 'date', 'amount', 'telephone', 'lines', 'yes-no', 'one-of', 'some-of'] as const;
export type Joining = (typeof joinings)[number];

const joiningNames: Record<Joining, string> = {
  same: t`The same value in each`,
  characters: t`One number or word, its characters in turn`,
  date: t`Day, month and year of one date`,
  amount: t`Whole units and cents of one amount`,
  telephone: t`Area code and number of one telephone`,
  lines: t`One text that goes on in the next line`,
  'yes-no': t`Yes and No to one question`,
  'one-of': t`Ticks of which one is set`,
  'some-of': t`Ticks of which any are set`,
};
export const joiningName = (joining: Joining): string => joiningNames[joining];

const isTick = ({ kind }: Field): boolean => kind === 'checkbox';

/** What fields can be joined to. */
export function joiningsFor(fields: readonly Field[]): Joining[] {
  if (fields.length < 2) return [];
  if (fields.every(isTick)) return fields.length === 2 ? ['yes-no', 'one-of', 'some-of', 'same'] : ['one-of', 'some-of', 'same'];
  if (fields.some((field) => field.kind !== 'text')) return fields.some(isTick) ? [] : ['same'];
  const two: Joining[] = fields.length === 2 ? ['amount', 'telephone'] : [];
  return ['same', 'characters', ...(fields.length <= 3 ? (['date'] as const) : []), ...two, 'lines'];
}

function pieces(fields: readonly Field[], as: Joining): (Piece | null)[] {
  switch (as) {
    case 'characters': {
      let at = 0;
      return fields.map(({ maxLength }) => {
        const from = at + 1;
        at += maxLength ?? 1;
        return { what: 'characters', from, to: at };
      });
    }
    case 'date': {
      const named = fields.map(datePart);
      if (named.every((part) => part !== null) && new Set(named).size === named.length) return named.map((what) => ({ what: what! }));
      return (fields.length === 3 ? (['day', 'month', 'year'] as const) : (['month', 'year'] as const)).map((what) => ({ what }));
    }
    case 'amount':
      return [{ what: 'whole units' }, { what: 'cents' }];
    case 'telephone':
      return [{ what: 'area code' }, { what: 'number' }];
    case 'lines':
      return fields.map((_, index) => ({ what: 'line', number: index + 1 }));
    default:
      return fields.map(() => null);
  }
}

const optionOf = (field: Field): FieldOption => {
  const value = field.onValues[0] ?? 'Yes';
  return { value, label: field.options[0]?.label ?? fieldLabel(field) };
};

const withoutFields = (answers: readonly Answer[], gone: ReadonlySet<string>, alone: (field: string, of: Answer) => Answer): Answer[] =>
  answers.flatMap((answer) => {
    if (!answer.parts.some(({ field }) => gone.has(field))) return [answer];
    // What is left of an answer from which a piece is taken is no longer what it was.
    return answer.parts.filter(({ field }) => !gone.has(field)).map(({ field }) => alone(field, answer));
  });

const aloneOf =
  (fields: ReadonlyMap<string, Field>) =>
  (name: string, { section }: Answer): Answer => ({
    label: fields.get(name)?.label ?? null,
    section: fields.get(name)?.section ?? section,
    parts: [{ field: name, piece: null, option: null }],
    reason: 'alone',
  });

/**
 * Joins fields to one answer, in the order in which they are named; it stands where the first of them stood.
 * @throws MailbagError answers-join
 */
export function joinAnswers(answers: readonly Answer[], names: readonly string[], as: Joining, all: readonly Field[]): Answer[] {
  const byName = new Map(all.map((field) => [field.name, field]));
  const fields = names.flatMap((name) => byName.get(name) ?? []);
  if (fields.length !== names.length || new Set(names).size !== names.length || !joiningsFor(fields).includes(as))
    throw new MailbagError('answers-join', { fields: [...names], as: joiningName(as).toLowerCase() });
  const isTicks = as === 'yes-no' || as === 'one-of' || as === 'some-of';
  const cut = pieces(fields, as);
  const parts = fields.map((field, index): AnswerPart => ({
    field: field.name,
    piece: cut[index]!,
    option: isTicks ? optionOf(field) : null,
  }));
  const of = (name: string): Answer | undefined => answers.find((answer) => answer.parts.some(({ field }) => field === name));
  const first = of(names[0]!);
  const reason: AnswerReason = isTicks ? as : 'joined';
  const joined: Answer = { label: first?.label ?? fieldLabel(fields[0]!), section: first?.section ?? null, parts, reason };
  const gone = new Set(names);
  const at = answers.findIndex((answer) => answer.parts.some(({ field }) => gone.has(field)));
  const before = withoutFields(answers.slice(0, Math.max(0, at)), gone, aloneOf(byName));
  return [...before, joined, ...withoutFields(answers.slice(Math.max(0, at)), gone, aloneOf(byName))];
}

/** Takes the answer that holds a field apart: each of its fields is one of its own. */
export function takeApart(answers: readonly Answer[], name: string, all: readonly Field[]): Answer[] {
  const alone = aloneOf(new Map(all.map((field) => [field.name, field])));
  return answers.flatMap((answer) =>
    answer.parts.length > 1 && answer.parts.some(({ field }) => field === name)
      ? answer.parts.map(({ field }) => alone(field, answer))
      : [answer],
  );
}

/**
 * What people joined and took apart goes along to a later version of the same fields.
 * @param before answers of the earlier version
 * @param answers as they are proposed for the later one
 */
export function carryAnswers(before: readonly Answer[], answers: readonly Answer[], fields: readonly Field[]): Answer[] {
  const there = new Set(fields.map(({ name }) => name));
  const names = ({ parts }: Answer): string => parts.map(({ field }) => field).join('\n');
  const alone = new Set(before.flatMap(({ parts }) => (parts.length === 1 ? [parts[0]!.field] : [])));
  const byName = new Map(fields.map((field) => [field.name, field]));
  let next = answers.flatMap((answer) =>
    answer.parts.length > 1 && answer.parts.every(({ field }) => alone.has(field))
      ? takeApart([answer], answer.parts[0]!.field, fields)
      : [answer],
  );
  for (const earlier of before) {
    if (earlier.parts.length < 2 || !earlier.parts.every(({ field }) => there.has(field))) continue;
    if (next.some((answer) => names(answer) === names(earlier))) continue;
    const gone = new Set(earlier.parts.map(({ field }) => field));
    const at = next.findIndex((answer) => answer.parts.some(({ field }) => gone.has(field)));
    next = [
      ...withoutFields(next.slice(0, at), gone, aloneOf(byName)),
      { ...earlier, label: earlier.label ?? byName.get(earlier.parts[0]!.field)!.label },
      ...withoutFields(next.slice(at), gone, aloneOf(byName)),
    ];
  }
  return next;
}
