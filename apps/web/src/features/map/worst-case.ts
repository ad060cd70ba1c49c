import type { SurveyAnswer, TemplateDetail } from '@mailbag/contract';
import type { Field, FieldValue, FieldValues } from '@mailbag/core';

function valueOf({ kind }: Field, text: string): FieldValue {
  if (kind === 'list') return text.split(', ');
  return text === 'true' && kind === 'checkbox' ? true : text;
}

/** The values of a record that nobody has: the longest that each field of a template takes in any record. */
export function worstCase(survey: SurveyAnswer, { id, fieldList }: TemplateDetail): FieldValues {
  const fields = new Map(fieldList.map((field) => [field.name, field]));
  return Object.fromEntries(
    survey.fields.flatMap(({ template, field: name, longest }): [string, FieldValue][] => {
      const field = template === id ? fields.get(name) : undefined;
      return field && longest ? [[name, valueOf(field, longest.value)]] : [];
    }),
  );
}
