import { t } from '@mailbag/core/words';
import type { LearnedRule, TemplateDetail } from '@mailbag/contract';
import type { Answer, Column, Evaluation, Field, FieldMap, FillRule, Suggestion } from '@mailbag/core';
import { answerField, isFillable, rulesOfAnswer, suggest, wholeRuleOf } from '@mailbag/core';
import { valueWords } from './field-mark';

/** An answer of a template of the packet, with what fills it. */
export interface SheetEntry {
  template: TemplateDetail;
  answer: Answer;
  /** Stands for all of it: a single field, or one with the answer's words. Its name is that of the first. */
  field: Field;
  /** Its boxes. */
  parts: readonly Field[];
  /** Undefined: it has none, or its boxes have different ones. */
  rule: FillRule | undefined;
  /** Its boxes are filled in different ways. */
  isMixed: boolean;
  suggested: Suggestion | undefined;
}

/** Answers with what in them takes a value; fields of a template that is not told in answers each by itself. */
function fillableAnswers({ answers, fieldList }: TemplateDetail, fields: ReadonlyMap<string, Field>): Answer[] {
  const kept = answers.flatMap((answer): Answer[] => {
    const parts = answer.parts.filter(({ field }) => isFillable(fields.get(field)!));
    return parts.length === 0 ? [] : [{ ...answer, parts }];
  });
  const told = new Set(kept.flatMap(({ parts }) => parts.map(({ field }) => field)));
  const alone = fieldList
    .filter((field) => isFillable(field) && !told.has(field.name))
    .map(({ name, label, section = null }): Answer => ({
      label,
      section,
      parts: [{ field: name, piece: null, option: null }],
      reason: 'alone',
    }));
  return [...kept, ...alone];
}

/** The rows of the fill sheet for one template, page by page in the order in which it is read. */
export function sheetEntries(
  template: TemplateDetail,
  map: FieldMap,
  columns: readonly Column[],
  learned: readonly LearnedRule[] = [],
): SheetEntry[] {
  const fields = new Map(template.fieldList.map((field) => [field.name, field]));
  const rows = fillableAnswers(template, fields).map((answer) => {
    const isSeveral = answer.parts.length > 1;
    const [first] = answer.parts as [Answer['parts'][number]];
    const rule = isSeveral ? (wholeRuleOf(answer, map) ?? undefined) : map[first.field];
    return {
      template,
      answer,
      field: isSeveral ? answerField(answer, fields) : fields.get(first.field)!,
      parts: answer.parts.map(({ field }) => fields.get(field)!),
      rule,
      isMixed: isSeveral && rule === undefined && answer.parts.some(({ field }) => Object.hasOwn(map, field)),
    };
  });
  const isOpen = ({ rule, isMixed }: (typeof rows)[number]): boolean => rule === undefined && !isMixed;
  const suggestions = suggest(
    rows.map(({ field }) => field),
    columns,
    Object.fromEntries(rows.filter((row) => !isOpen(row)).map(({ field, rule }) => [field.name, rule ?? { kind: 'blank' }])),
    learned.filter((one) => one.template === template.id),
  );
  return rows.map((row) => ({ ...row, suggested: suggestions[row.field.name] })).sort((one, other) => one.field.page - other.field.page);
}

/** The map with another rule for an answer: each of its boxes takes its piece. @param rule undefined: none any more */
export function withRule(map: FieldMap, { answer, parts }: SheetEntry, rule: FillRule | undefined): FieldMap {
  const own = new Set(parts.map(({ name }) => name));
  const rest = Object.fromEntries(Object.entries(map).filter(([name]) => !own.has(name)));
  if (!rule) return rest;
  if (parts.length === 1) return { ...rest, [parts[0]!.name]: rule };
  return { ...rest, ...rulesOfAnswer(answer, rule, new Map(parts.map((field) => [field.name, field]))) };
}

/** What fills an answer for one record, piece by piece where they differ. */
export function answerWords({ answer, parts }: SheetEntry, evaluation: Evaluation | null | undefined): string {
  const values = parts.map((field) => valueWords(field, evaluation?.values[field.name]));
  if (parts.length === 1 || new Set(values).size === 1) return values[0]!;
  const ticked = answer.parts.flatMap(({ option }, index) => (option && values[index] === 'ticked' ? [option.label] : []));
  if (answer.parts.every(({ option }) => option !== null)) return ticked.join(', ') || t`none ticked`;
  return values.join(' · ');
}
