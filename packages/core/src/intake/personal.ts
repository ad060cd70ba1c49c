import { t } from '../words/words.js';
import { YES_WORDS } from '../answers/yes-words.js';
import { normalised } from '../map/choose.js';
import type { FieldMap } from '../map/field-map.js';
import type { FillRule } from '../map/registry.js';
import { readsColumns, renameColumn } from '../map/registry.js';
import type { Column, SourceRecord } from '../tables/record.js';
import { cellText } from '../tables/record.js';
import { NUMBER_COLUMN, RECEIVED_COLUMN } from './answer-record.js';
import { answerText, typedDay } from './answer-text.js';
import { filledBy, filledText, sourcesOf } from './filled-from.js';
import type { AnswerValue, IntakeAnswers, IntakePlan, IntakeQuestion, PersonalPlan } from './intake.js';
import { NO, YES, askedSections, isPictureKind, orderedQuestions } from './intake.js';
import type { MadeIntake } from './make-intake.js';
import { shownSections } from './shown-questions.js';

/** The plan of a mailing, as far as questions are held against it. */
export interface AnsweredMailing {
  maps: Readonly<Record<string, FieldMap>>;
  /** The column that its messages go to. */
  addressColumn: string | null;
  /** Names of the columns of its records. */
  columns: readonly string[];
}

/** How an answer is said in the records, where the map of the mailing translates them to the same values of a field. */
function wordsOfRecords(own: FillRule | undefined, theirs: FillRule | undefined): Record<string, string> {
  if (own?.kind !== 'translate' || theirs?.kind !== 'translate') return {};
  return Object.fromEntries(
    own.table.flatMap(({ from, to }) => {
      const same = theirs.table.find((one) => one.to === to);
      return same && same.from !== from ? [[from, same.from] as const] : [];
    }),
  );
}

/** Why nobody is asked what the mailing fills by a rule of its own. */
const filledFrom = (columns: readonly string[]): string =>
  columns.length > 0
    ? t`The mailing works this out from ${columns.join(', ')}, so it is not asked.`
    : t`The mailing fills this in for everybody, so it is not asked.`;

/**
 * A question whose fields the mailing puts together of several columns is asked as those columns, and one whose fields it works out is not asked: the fields are
 * filled as the mailing fills them.
 */
function parted(made: MadeIntake, maps: AnsweredMailing['maps'], taken: ReadonlySet<string>): MadeIntake {
  const known = new Set(taken);
  const plan = structuredClone(made.plan);
  const own: Record<string, FieldMap> = Object.fromEntries(Object.entries(made.maps).map(([template, map]) => [template, { ...map }]));
  let last = Math.max(0, ...Object.keys(plan.questions).map((id) => Number(id.slice(1)) || 0));
  for (const section of plan.sections)
    section.questions = section.questions.flatMap((id) => {
      const question = plan.questions[id]!;
      const places = placesOf(made.maps, maps, question.column);
      const [first] = places;
      if (
        places.length > 0 &&
        places.every(({ theirs }) => theirs !== undefined && theirs.kind !== 'blank' && readsColumns(theirs).length !== 1)
      ) {
        for (const { template, field, theirs } of places) own[template]![field] = theirs!;
        if (question.kind !== 'text' || !places.every(({ theirs }) => isComposedOf(theirs!))) {
          plan.questions[id] = { ...question, isAway: true, doubt: filledFrom(readsColumns(first!.theirs!)) };
          return [id];
        }
      }
      const isComposed = places.length > 0 && places.every(({ theirs }) => theirs !== undefined && isComposedOf(theirs));
      const columns = first?.theirs && isComposed ? readsColumns(first.theirs) : [];
      if (columns.length < 2 || question.kind !== 'text') return [id];
      const missing = columns.filter((column) => !known.has(normalised(column)));
      missing.forEach((column) => known.add(normalised(column)));
      if (missing.length === 0) {
        plan.questions[id] = { ...question, isAway: true, doubt: t`It is put together of ${columns.join(', ')}, which are asked for.` };
        return [id];
      }
      return missing.map((column, index) => {
        const next = index === 0 ? id : `q${++last}`;
        plan.questions[next] = { ...question, id: next, column, words: column, help: '' };
        return next;
      });
    });
  return { ...made, plan, maps: own };
}

/** Whether a rule puts the texts of several columns together. */
const isComposedOf = (rule: FillRule): boolean => (rule.kind === 'compose' || rule.kind === 'liquid') && readsColumns(rule).length > 1;

/** The fields that take the answer in a column, with the rule of the mailing for each. */
function placesOf(
  own: MadeIntake['maps'],
  theirs: AnsweredMailing['maps'],
  column: string,
): { template: string; field: string; own: FillRule; theirs: FillRule | undefined }[] {
  return Object.entries(own).flatMap(([template, map]) =>
    Object.entries(map).flatMap(([field, rule]) =>
      readsColumns(rule).includes(column) ? [{ template, field, own: rule, theirs: theirs[template]?.[field] }] : [],
    ),
  );
}

/**
 * Gives the questions of an intake the columns of a mailing that fills the same fields from records, so that what the records say stands there as answers.
 * What the mailing puts together of several columns is asked as these. A question whose fields take something else keeps a column of its own.
 */
export function alignWithMailing(whole: MadeIntake, mailing: AnsweredMailing): MadeIntake & { recordWords: PersonalPlan['recordWords'] } {
  const single = orderedQuestions(whole.plan).flatMap(({ column }) =>
    placesOf(whole.maps, mailing.maps, column).flatMap(({ theirs }) =>
      theirs && readsColumns(theirs).length === 1 ? readsColumns(theirs) : [],
    ),
  );
  const made = parted(whole, mailing.maps, new Set(single.map(normalised)));
  const recordWords: PersonalPlan['recordWords'] = {};
  const wanted = new Map<string, string>();
  const taken = new Set([NUMBER_COLUMN, RECEIVED_COLUMN].map(normalised));
  const ordered = orderedQuestions(made.plan);
  for (const { id, column, kind } of ordered) {
    const fields = placesOf(made.maps, mailing.maps, column);
    const composed = fields.some(({ own, theirs }) => own === theirs);
    const [first] = composed
      ? [column]
      : fields.flatMap(({ theirs }) => (theirs && readsColumns(theirs).length === 1 ? readsColumns(theirs) : []));
    const found = first ?? (fields.length === 0 && kind === 'e-mail' ? (mailing.addressColumn ?? undefined) : undefined);
    if (found === undefined || taken.has(normalised(found))) continue;
    taken.add(normalised(found));
    wanted.set(id, found);
    const words = Object.assign({}, ...fields.map(({ own, theirs }) => wordsOfRecords(own, theirs))) as Record<string, string>;
    if (Object.keys(words).length > 0) recordWords[id] = words;
  }
  // What keeps its own column makes room for those that are called so in the records.
  for (const { id, column } of ordered) {
    if (wanted.has(id)) continue;
    let free = column;
    for (let number = 2; taken.has(normalised(free)); number++) free = `${column} (${number})`;
    taken.add(normalised(free));
    wanted.set(id, free);
  }
  // By way of names that no column has, since two of them may change places.
  const steps = [
    ...ordered.map(({ id, column }) => [column, `\u0000${id}`] as const),
    ...ordered.map(({ id }) => [`\u0000${id}`, wanted.get(id)!] as const),
  ];
  const renamed = (rule: FillRule): FillRule => steps.reduce((one, [from, to]) => renameColumn(one, from, to), rule);
  const names = new Map(ordered.map(({ id, column }) => [column, wanted.get(id)!]));
  return {
    ...made,
    recordWords,
    plan: {
      ...made.plan,
      questions: Object.fromEntries(Object.entries(made.plan.questions).map(([id, one]) => [id, { ...one, column: wanted.get(id)! }])),
    },
    maps: Object.fromEntries(
      Object.entries(made.maps).map(([template, map]) => [
        template,
        Object.fromEntries(
          // What is filled as the mailing fills it reads its columns already.
          Object.entries(map).map(([field, rule]) => [field, mailing.maps[template]?.[field] === rule ? rule : renamed(rule)]),
        ),
      ]),
    ),
    pictures: made.pictures.map((one) => ({ ...one, column: names.get(one.column) ?? one.column })),
  };
}

const NO_WORDS = /^(?:no|nein|non|nie|ні|لا|false|n|off|0|-)$/i;

/** What a record says as the answer to a question; undefined: nothing, or nothing that could be answered. */
function answerOf(
  question: IntakeQuestion,
  text: string,
  value: unknown,
  recordWords: Readonly<Record<string, string>>,
): AnswerValue | undefined {
  const { kind, options } = question;
  const spoken = Object.entries(recordWords).find(([, words]) => normalised(words) === normalised(text))?.[0];
  const option = (one: string): string | undefined =>
    Object.entries(recordWords).find(([, words]) => normalised(words) === normalised(one))?.[0] ??
    options.find((own) => normalised(own.value) === normalised(one) || normalised(own.say) === normalised(one))?.value;
  switch (kind) {
    case 'yes or no':
      return spoken ?? (YES_WORDS.test(text) ? YES : NO_WORDS.test(text) ? NO : undefined);
    case 'one of':
      return option(text);
    case 'some of': {
      const parts = text
        .split(/[,;\n]/)
        .map((part) => part.trim())
        .filter(Boolean)
        .map(option);
      return parts.every((part) => part !== undefined) ? parts : undefined;
    }
    case 'date': {
      const day = typeof value === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(value) ? value : typedDay(text);
      // As people write it, in the languages of pages.
      return day ? day.split('-').reverse().join('.') : undefined;
    }
    default:
      return text;
  }
}

/** What a record says as the answer to a question that was joined of others: what stands in their columns. Empty: nothing. */
function joinedText(plan: IntakePlan, { id }: IntakeQuestion, columns: readonly Column[], record: SourceRecord): string {
  const filled = filledBy(plan, id).flatMap(({ column, filled: by }) => {
    const index = columns.findIndex(({ name }) => name === column);
    return by && 'from' in by && index >= 0 ? [{ take: by.take, text: cellText(record, index).trim() }] : [];
  });
  const texts = filled.map(({ text }) => text).filter(Boolean);
  if (filled.every(({ take }) => take === null)) return texts[0] ?? '';
  return texts.join(filled.some(({ take }) => take?.what === 'characters') ? '' : ' ');
}

/** The answers that a record gives already, for whoever opens a personal link. Pictures are none. */
export function knownAnswers(
  plan: IntakePlan,
  recordWords: PersonalPlan['recordWords'],
  columns: readonly Column[],
  record: SourceRecord,
): IntakeAnswers {
  const answers: Record<string, AnswerValue> = {};
  for (const { questions } of askedSections(plan))
    for (const question of questions) {
      const index = columns.findIndex(({ name }) => name === question.column);
      if (isPictureKind(question.kind)) continue;
      const text = index < 0 ? joinedText(plan, question, columns, record) : cellText(record, index).trim();
      const answer = text === '' ? undefined : answerOf(question, text, record.cells[index]?.value, recordWords[question.id] ?? {});
      if (answer !== undefined) answers[question.id] = answer;
    }
  return answers;
}

/** What is known beyond the questions: the texts of a record, by its columns. */
export function knownBeside(plan: IntakePlan, columns: readonly Column[], record: SourceRecord): Record<string, string> {
  const asked = new Set(askedSections(plan).flatMap(({ questions }) => questions.map(({ column }) => column)));
  return Object.fromEntries(
    columns.flatMap(({ name }, index) =>
      !asked.has(name) && plan.personal?.columns.includes(name) ? [[name, cellText(record, index).trim()] as const] : [],
    ),
  );
}

/** A value of a record that somebody corrects. */
export interface AnswerChange {
  column: string;
  /** What the record says, and what it would say. Empty: nothing. */
  was: string;
  now: string;
}

/** What answers to a personal link would change in the record, in the record's own words. What was asked beyond the record, or was hidden, changes nothing. */
export function answerChanges(
  plan: IntakePlan,
  recordWords: PersonalPlan['recordWords'],
  columns: readonly Column[],
  record: SourceRecord,
  answers: IntakeAnswers,
  today: string,
): AnswerChange[] {
  const known = knownAnswers(plan, recordWords, columns, record);
  const shown = shownSections(plan, answers, today).flatMap(({ questions }) => questions);
  const textIn = (of: IntakeAnswers, id: string): string => {
    const question = shown.find((one) => one.id === id);
    return question && !isPictureKind(question.kind) ? answerText(question, of[id]) : '';
  };
  const filled = orderedQuestions(plan).flatMap(({ column, isAway, filled: by }): AnswerChange[] => {
    const index = columns.findIndex(({ name }) => name === column);
    if (!isAway || !by || index < 0 || !sourcesOf(by).some((id) => shown.some((one) => one.id === id))) return [];
    const was = cellText(record, index).trim();
    const [now, before] = [answers, known].map((of) => filledText(by, (id) => textIn(of, id))) as [string, string];
    return now === before || now === was ? [] : [{ column, was, now }];
  });
  return [
    ...shown.flatMap((question): AnswerChange[] => {
      const index = columns.findIndex(({ name }) => name === question.column);
      if (index < 0 || isPictureKind(question.kind)) return [];
      const text = answerText(question, answers[question.id]);
      if (text === answerText(question, known[question.id])) return [];
      const words = recordWords[question.id] ?? {};
      const now = Array.isArray(answers[question.id])
        ? (answers[question.id] as string[]).map((one) => words[one] ?? one).join(', ')
        : (words[text] ?? text);
      return [{ column: question.column, was: cellText(record, index).trim(), now }];
    }),
    ...filled,
  ];
}
