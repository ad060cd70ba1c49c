import { t } from '../words/words.js';
import { meaningOf } from '../page/label-meaning.js';
import { bareWords, saysNoMore } from '../page/label-words.js';
import type { Field, FieldOption, TemplateDescription } from '../pdf/field.js';
import type { Answer, Piece } from './answer.js';
import type { QuestionKind } from './question-kinds.js';

/** A field that a question fills. `form`: 1-based, as they were given. */
export interface QuestionField {
  form: number;
  name: string;
  /** Null: all of the answer. */
  piece: Piece | null;
}

/** What a person is asked, made of an answer. */
export interface Question {
  question: string;
  kind: QuestionKind;
  required: boolean;
  /** Tooltip or small print where it adds something; null: nothing does. */
  help: string | null;
  options: (FieldOption & { field: string | null })[];
  /** Most characters, over all pieces; null: no limit. */
  limit: number | null;
  section: string | null;
  fields: QuestionField[];
}

/** Why a field is not asked. */
export type LeftReason = 'button' | 'read-only' | 'calculated' | 'hidden' | 'nowhere';
export interface LeftField {
  form: number;
  name: string;
  why: LeftReason;
}
const leftWords: Record<LeftReason, string> = {
  button: t`a push button`,
  'read-only': 'read-only',
  calculated: t`calculated from other fields`,
  hidden: 'hidden',
  nowhere: t`on no page`,
};
export const leftSentence = (why: LeftReason): string => leftWords[why];

export interface Questions {
  questions: Question[];
  left: LeftField[];
}

/** Lines in which a box takes several, points. */
const SEVERAL_LINES = 36;

function leftReason(field: Field): LeftReason | null {
  if (field.kind === 'button') return 'button';
  if (field.calculation) return 'calculated';
  if (field.flags.includes('readOnly')) return 'read-only';
  if (field.widgets.length === 0 || field.page === 0) return 'nowhere';
  return field.widgets.every(({ hidden }) => hidden) ? 'hidden' : null;
}

const YES_NO = /^(?:yes|no|ja|nein|oui|non|s[ií]|não|sim|true|false|y|n|nee|nej|tak|nie|ano|ne)$/i;

function kindOf(answer: Answer, fields: readonly Field[]): QuestionKind {
  const [first] = fields as [Field];
  if (answer.reason === 'yes-no') return 'yes or no';
  if (answer.reason === 'one-of') return 'one of';
  if (answer.reason === 'some-of') return 'some of';
  if (answer.reason === 'date') return 'date';
  if (answer.reason === 'amount') return 'amount';
  if (answer.reason === 'telephone') return 'telephone';
  if (answer.reason === 'lines') return 'long text';
  if (first.kind === 'signature') return 'signature';
  if (first.kind === 'checkbox') return first.onValues.length > 1 ? 'one of' : 'yes or no';
  if (first.kind === 'radio') {
    const options = optionsOf(answer, fields);
    return options.length === 2 && options.every(({ label }) => YES_NO.test(label.trim())) ? 'yes or no' : 'one of';
  }
  if (first.kind === 'combo') return 'one of';
  if (first.kind === 'list') return first.flags.includes('multiSelect') ? 'some of' : 'one of';
  if (first.format?.kind === 'date') return 'date';
  if (first.format?.kind === 'number' || first.format?.kind === 'percent')
    return meaningOf(answer.label ?? '') === 'amount' ? 'amount' : 'number';
  const words = `${answer.label ?? ''} ${first.tooltip ?? ''}`.trim();
  const meaning = meaningOf(answer.label ?? '') ?? meaningOf(words);
  const [, bottom, , top] = first.widgets[0]!.rect;
  const isTall = top - bottom >= SEVERAL_LINES;
  if (meaning && !(isTall && first.flags.includes('multiline'))) return meaning;
  return first.flags.includes('multiline') && isTall
    ? 'long text'
    : first.flags.includes('multiline') && top - bottom > 26
      ? 'long text'
      : 'text';
}

function optionsOf(answer: Answer, fields: readonly Field[]): Question['options'] {
  if (answer.parts[0]!.option) return answer.parts.map(({ field, option }) => ({ ...option!, field }));
  const [first] = fields as [Field];
  const isChoice =
    first.kind === 'radio' || first.kind === 'combo' || first.kind === 'list' || (first.kind === 'checkbox' && first.onValues.length > 1);
  if (!isChoice) return [];
  const options = first.options.length > 0 ? first.options : first.onValues.map((value) => ({ value, label: value }));
  // The line above the others that says “choose one” is no answer.
  return options
    .filter(({ value, label }) => label.trim() !== '' && !(first.kind === 'combo' && value.trim() === ''))
    .map((option) => ({ ...option, field: null }));
}

function limitOf({ parts }: Answer, fields: readonly Field[]): number | null {
  const last = parts.at(-1)!.piece;
  if (last?.what === 'characters') return last.to;
  if (parts.length > 1 && parts.every(({ piece }) => piece !== null)) {
    const limits = fields.map(({ maxLength }) => maxLength);
    return parts[0]!.piece!.what === 'line' && limits.every((limit) => limit !== null)
      ? limits.reduce((sum, limit) => sum + limit!, 0)
      : null;
  }
  const limits = fields.flatMap(({ maxLength }) => maxLength ?? []);
  return limits.length > 0 ? Math.min(...limits) : null;
}

/** A tooltip that says more than the question does. */
function helpOf({ label, reason }: Answer, [first]: readonly Field[]): string | null {
  const tooltip = first?.tooltip?.trim();
  if (!tooltip || first?.labelFrom === 'tooltip' || reason === 'yes-no' || reason === 'one-of') return null;
  return label !== null && (saysNoMore(tooltip, label) || tooltip.length < 4) ? null : tooltip;
}

/**
 * What an intake would ask, made of forms without anybody's help: a question an answer, in the order in which the forms are read. What several forms ask by the
 * same words, kind and section is asked once.
 */
export function questionsOf(forms: readonly TemplateDescription[]): Questions {
  const questions: Question[] = [];
  const left: LeftField[] = [];
  for (const [index, { fields, answers = [] }] of forms.entries()) {
    const form = index + 1;
    const byName = new Map(fields.map((field) => [field.name, field]));
    for (const field of fields) {
      const why = leftReason(field);
      if (why) left.push({ form, name: field.name, why });
    }
    const isLeft = new Set(left.filter((one) => one.form === form).map(({ name }) => name));
    for (const answer of answers) {
      const parts = answer.parts.filter(({ field }) => !isLeft.has(field));
      if (parts.length === 0) continue;
      const own = parts.map(({ field }) => byName.get(field)!);
      const kind = kindOf(answer, own);
      const made: Question = {
        question: answer.label ?? own[0]!.tooltip ?? own[0]!.partialName,
        kind,
        required: own.some(({ flags }) => flags.includes('required')),
        help: helpOf(answer, own),
        options: kind === 'yes or no' && parts.length === 1 ? [] : optionsOf({ ...answer, parts }, own),
        limit: limitOf({ ...answer, parts }, own),
        section: answer.section,
        fields: parts.map(({ field, piece }) => ({ form, name: field, piece })),
      };
      const same = questions.find(
        (one) =>
          one.fields[0]!.form !== form &&
          answer.label !== null &&
          one.kind === made.kind &&
          bareWords(one.question) === bareWords(made.question) &&
          one.fields.every(({ form: other }) => other !== form) &&
          (one.section === null ||
            made.section === null ||
            bareWords(one.section) === bareWords(made.section) ||
            bareWords(made.question).includes(' ')),
      );
      if (same && made.options.every(({ field }) => field === null)) {
        same.fields.push(...made.fields);
        same.required ||= made.required;
      } else questions.push(made);
    }
  }
  return { questions, left };
}
