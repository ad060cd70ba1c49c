import { t } from '../words/words.js';
import type { Answer, AnswerReason } from '../answers/answer.js';
import type { LeftField, Question, QuestionField } from '../answers/questions.js';
import { leftSentence, questionsOf } from '../answers/questions.js';
import type { Condition } from '../map/condition.js';
import { rulesOfAnswer } from '../map/answer-rules.js';
import { YES_WORDS } from '../answers/yes-words.js';
import type { FieldMap } from '../map/field-map.js';
import type { FillRule } from '../map/registry.js';
import { takesOneOf } from '../map/rule.js';
import { saysNoMore } from '../page/label-words.js';
import type { Field, TemplateDescription } from '../pdf/field.js';
import { NUMBER_COLUMN, RECEIVED_COLUMN } from './answer-record.js';
import type { IntakeOption, IntakePlan, IntakeQuestion, IntakeSection } from './intake.js';
import { NO, YES, isPictureKind } from './intake.js';

/** A template of the packet. */
export interface IntakeForm extends Pick<TemplateDescription, 'fields' | 'answers'> {
  /** Id of the template. */
  id: number;
  name: string;
}

/** An intake with what maps its answers to the fields of its templates. */
export interface MadeIntake {
  plan: IntakePlan;
  /** By the ids of the templates. */
  maps: Record<string, FieldMap>;
  /** Fields in whose boxes the pictures stand that answers bring. */
  pictures: { template: number; field: string; column: string }[];
  /** Fields that nobody is asked for, with the reason as words. */
  left: { template: number; field: string; why: string }[];
}

/** Characters of the words of a question that need no second look, and of the name of a column. */
const [LONG_WORDS, LONGEST_COLUMN] = [140, 80];
/** Headings and labels of what the office fills in itself (common practice, no source). */
const OFFICE =
  /\b(?:for )?(?:official|office|internal|staff|agency) use\b|\b(?:for|of|by) the (?:office|authority|agency)\b|\bdo not write\b|\bnur für\b.*\b(?:amt|behörde|büro)|\bwird von .* ausgefüllt|\bvom amt auszufüllen|\bréservé à l|\bpara uso (?:oficial|exclusivo|interno)|\bwypełnia urząd/i;

/** Words for a place, for a date, and what stands between them: on one line they are one text, not a date (common practice, no source). */
const PLACES = new Set(['place', 'city', 'town', 'ort', 'lieu', 'lugar', 'luogo', 'local', 'plaats', 'miejscowość']);
const DATES = new Set(['date', 'datum', 'fecha', 'data']);
const BETWEEN = new Set(['and', 'und', 'et', 'y', 'e', 'en', 'i', 'the', '']);

function isPlaceAndDate(words: string): boolean {
  const told = words
    .toLowerCase()
    .split(/[\s,/&()]/)
    .filter((word) => !BETWEEN.has(word));
  return told.some((word, at) => PLACES.has(word) && DATES.has(told[at + 1] ?? ''));
}

/** A value for an option: its words without the commas that part several. */
const optionValue = (say: string): string =>
  say
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter(Boolean)
    .join(' ');

function optionsFor({ kind, options }: Question): IntakeOption[] {
  if (kind !== 'one of' && kind !== 'some of') return [];
  const seen = new Set<string>();
  return options.map(({ label, value: own }) => {
    const say = label.trim() || own;
    let value = optionValue(say);
    for (let number = 2; seen.has(value); number++) value = `${optionValue(say)} (${number})`;
    seen.add(value);
    return { value, say };
  });
}

/** Words as a heading of a column: cut at a word, and unlike those that are there. */
function columnFor(words: string, taken: Set<string>): string {
  const whole = words.split(/\s/).filter(Boolean).join(' ') || 'Question';
  const cut = whole.length <= LONGEST_COLUMN ? whole : whole.slice(0, Math.max(40, whole.lastIndexOf(' ', LONGEST_COLUMN)));
  let column = cut;
  for (let number = 2; taken.has(column.toLowerCase()); number++) column = `${cut} (${number})`;
  taken.add(column.toLowerCase());
  return column;
}

function doubtOf(question: Question, field: Field | undefined): string {
  const { question: words, kind, options } = question;
  if (field?.labelFrom === 'name' || field?.label === null)
    return t`The form prints no words here, so these come from the name of the field.`;
  if (words.length > LONG_WORDS) return t`The words are long; say briefly what is asked.`;
  if (
    (kind === 'one of' || kind === 'some of') &&
    options.some(({ label, value }) => label.trim() === '' || (label === value && /^\d*$/.test(label)))
  )
    return t`Some of its options have no words on the form; say what they mean.`;
  return '';
}

/** How sure the words of a question are, by where they come from, and what it is about them. The parts are our own judgement. */
function surenessOf(question: Question, field: Field | undefined, doubt: string): { part: number; why: string } {
  if (doubt !== '') return { part: field?.labelFrom === 'name' || field?.label === null ? 0.25 : 0.5, why: doubt };
  const { options, fields } = question;
  const tooltip = field?.tooltip?.trim() ?? '';
  const agree = tooltip !== '' && field?.label != null && saysNoMore(field.label, tooltip);
  const part = field?.labelFrom === 'tooltip' ? 0.85 : agree ? 1 : 0.9;
  const where =
    field?.labelFrom === 'tooltip'
      ? t`The form says these words where a pointer rests on the box.`
      : agree
        ? t`The form prints these words, and says them where a pointer rests on the box.`
        : t`The form prints these words beside the box.`;
  const pieces = fields.some(({ piece }) => piece !== null) || options.some((option) => option.field !== null);
  return pieces ? { part: Math.min(part, 0.8), why: t`${where} ${fields.length} boxes are taken as one question.` } : { part, why: where };
}

/** The way of writing dates that a box asks for, by its words, or as many letters as it takes (UTS 35). */
function datePattern({ maxLength, tooltip, label }: Field): string {
  const words = `${tooltip ?? ''} ${label ?? ''}`;
  const shown = /\b([dtmj][dtmj]?)\s*([./-])\s*([dtm][dtm]?)\s*\2\s*((?:[yja]{2}){1,2})\b/i.exec(words);
  if (shown) {
    const [, first = '', mark = '.', , year = ''] = shown;
    const [one, other] = /^m/i.test(first) ? ['MM', 'dd'] : ['dd', 'MM'];
    return `${one}${mark}${other}${mark}${year.length === 2 ? 'yy' : 'yyyy'}`;
  }
  return maxLength === 8 ? 'ddMMyyyy' : maxLength === 6 ? 'ddMMyy' : 'dd.MM.yyyy';
}

const column = (name: string): FillRule => ({ kind: 'column', column: name });

/** The rule by which one whole field takes an answer. */
function ruleFor(question: Question, made: IntakeQuestion, field: Field): FillRule {
  const { kind } = question;
  if (kind === 'yes or no' && takesOneOf(field)) {
    const [first = 'Yes', second = 'Off'] = field.onValues.length > 0 ? field.onValues : field.options.map(({ value }) => value);
    const isYes = (value: string): boolean =>
      YES_WORDS.test(value) || YES_WORDS.test(field.options.find((one) => one.value === value)?.label.trim() ?? '');
    const [yes, no] = field.kind === 'radio' && isYes(second) && !isYes(first) ? [second, first] : [first, second];
    return {
      kind: 'translate',
      column: made.column,
      table: [
        { from: YES, to: yes },
        { from: NO, to: field.kind === 'radio' ? no : 'Off' },
      ],
    };
  }
  if (takesOneOf(field) && made.options.length > 0)
    return {
      kind: 'translate',
      column: made.column,
      table: made.options.map(({ value }, index) => ({ from: value, to: question.options[index]!.value })),
    };
  if (kind === 'date' && made.kind === 'date' && !field.format)
    return {
      kind: 'date',
      of: column(made.column),
      read: [],
      add: { years: 0, months: 0, days: 0 },
      show: { pattern: datePattern(field) },
      language: null,
    };
  return column(made.column);
}

/** Whether the boxes take pieces of an answer, or ticks that stand for it. */
const isCut = ({ options }: Question, places: readonly QuestionField[]): boolean =>
  places.length > 1 && places.every(({ piece, name }) => piece !== null || options.some(({ field }) => field === name));

/** The rules of one form's fields for one question. */
function rulesFor(
  question: Question,
  made: IntakeQuestion,
  places: readonly QuestionField[],
  fields: ReadonlyMap<string, Field>,
): FieldMap {
  if (!isCut(question, places)) return Object.fromEntries(places.map(({ name }) => [name, ruleFor(question, made, fields.get(name)!)]));
  const reason: AnswerReason = question.kind === 'some of' ? 'some-of' : 'one-of';
  const yesNo = question.kind === 'yes or no';
  const answer: Answer = {
    label: question.question,
    section: question.section,
    reason,
    parts: places.map(({ name, piece }) => {
      const index = question.options.findIndex(({ field }) => field === name);
      const option = question.options[index];
      const label = yesNo ? (YES_WORDS.test(option?.label.trim() ?? '') ? YES : NO) : made.options[index]?.value;
      return { field: name, piece, option: option && label !== undefined ? { value: option.value, label } : null };
    }),
  };
  return rulesOfAnswer(answer, column(made.column), fields);
}

/** Questions under their headings: those that follow one another under the same, and those without one under the last. */
function sectionsOf(questions: readonly { id: string; section: string | null }[], title: string): IntakeSection[] {
  const sections: IntakeSection[] = [];
  for (const { id, section } of questions) {
    const last = sections.at(-1);
    if (last && (section === null || section === last.title)) last.questions.push(id);
    else sections.push({ id: `s${sections.length + 1}`, title: section ?? title, when: null, questions: [id] });
  }
  return sections;
}

/** Whether what is asked is for the office to fill in. */
const isForOffice = ({ question, section, help }: Question): boolean =>
  [question, section ?? '', help ?? ''].some((words) => OFFICE.test(words));

/**
 * Makes an intake of templates without anybody's help: what a person would be asked, in the order of the forms and under their headings, with every question mapped
 * to the fields that take it. Where no form asks for an e-mail address, a question for it is added, since the copy is mailed to it.
 */
export function makeIntake(name: string, forms: readonly IntakeForm[]): MadeIntake {
  const { questions: asked, left } = questionsOf(forms.map((form) => form as unknown as TemplateDescription));
  const byName = forms.map(({ fields }) => new Map(fields.map((field) => [field.name, field])));
  const taken = new Set([NUMBER_COLUMN.toLowerCase(), RECEIVED_COLUMN.toLowerCase()]);
  const maps: Record<string, FieldMap> = Object.fromEntries(forms.map(({ id }) => [id, {}]));
  const pictures: MadeIntake['pictures'] = [];
  const questions: IntakeQuestion[] = [];
  for (const [index, one] of asked.entries()) {
    const [{ form, name: first }] = one.fields as [QuestionField];
    const field = byName[form - 1]!.get(first);
    const isAway = isForOffice(one);
    const made: IntakeQuestion = {
      id: `q${index + 1}`,
      column: columnFor(one.question, taken),
      words: one.question,
      kind: one.kind === 'date' && isPlaceAndDate(one.question) ? 'text' : one.kind,
      required: one.required,
      help: one.help ?? '',
      options: optionsFor(one),
      limit: isPictureKind(one.kind) ? null : one.limit,
      initial: '',
      when: null,
      isAway,
      doubt: isAway ? t`The form says that the office fills this in, so it is not asked.` : doubtOf(one, field),
    };
    if (!isAway) made.sure = surenessOf(one, field, made.doubt);
    questions.push(made);
    for (const [at, { id }] of forms.entries()) {
      const places = one.fields.filter((place) => place.form === at + 1);
      if (isPictureKind(one.kind)) pictures.push(...places.map((place) => ({ template: id, field: place.name, column: made.column })));
      else if (places.length > 0) Object.assign(maps[id]!, rulesFor(one, made, places, byName[at]!));
    }
  }
  const sections = sectionsOf(
    questions.map(({ id }, index) => ({ id, section: asked[index]!.section })),
    forms[0]?.name ?? name,
  );
  if (!questions.some(({ kind, isAway }) => kind === 'e-mail' && !isAway)) {
    const added = addedQuestion(`q${questions.length + 1}`, columnFor('E-mail address', taken), 'E-mail address', 'e-mail');
    questions.push({ ...added, required: true, help: 'Your copy is sent to it.' });
    if (sections.length === 0) sections.push({ id: 's1', title: name, when: null, questions: [added.id] });
    else sections[0]!.questions.push(added.id);
  }
  return {
    plan: {
      name,
      title: name,
      intro: '',
      sections,
      questions: Object.fromEntries(questions.map((one) => [one.id, one])),
      after: { atOnce: true, thanks: '' },
      opening: { from: null, until: null, maximum: null, contact: '', sites: [], retentionDays: 14 },
    },
    maps,
    pictures,
    left: left.map(({ form, name: field, why }: LeftField) => ({ template: forms[form - 1]!.id, field, why: leftSentence(why) })),
  };
}

/** A question that no field of a form has. */
export const addedQuestion = (id: string, name: string, words: string, kind: IntakeQuestion['kind']): IntakeQuestion => ({
  id,
  column: name,
  words,
  kind,
  required: false,
  help: '',
  options: [],
  limit: null,
  initial: '',
  when: null as Condition | null,
  isAway: false,
  doubt: '',
});
