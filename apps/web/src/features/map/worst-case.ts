import type { SurveyAnswer, TemplateDetail } from '@mailbag/contract';
import type { Field, FieldValue, FieldValues } from '@mailbag/core';

const BETWEEN = ', ';

/** The options of a list of which a text is made, which may hold commas themselves. What is no option stands as it is. */
function chosenOptions(options: Field['options'], text: string): string[] {
  const begins = options.map(({ value }) => value).filter((value) => text === value || text.startsWith(value + BETWEEN));
  const [longest = text.split(BETWEEN)[0]!] = begins.sort((one, other) => other.length - one.length);
  const rest = text.slice(longest.length + BETWEEN.length);
  return rest === '' ? [longest] : [longest, ...chosenOptions(options, rest)];
}

function valueOf({ kind, options }: Field, text: string): FieldValue {
  if (kind === 'list') return chosenOptions(options, text);
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
