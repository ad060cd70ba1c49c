import type { Field } from '@mailbag/core';
import { isFillable, isRequired } from '@mailbag/core';
import type { AnswerColumn } from '../files/answer-column.js';

/** What may be chosen for a field; null: anything may be typed. */
const choicesOf = (field: Field): string[] | null => {
  if (field.kind === 'checkbox') return ['yes', 'no'];
  if (field.kind === 'radio') return field.options.length > 0 ? field.options.map(({ label }) => label) : field.onValues;
  if (field.kind === 'combo' || field.kind === 'list') return field.options.map(({ label }) => label);
  return null;
};

/** Whether people fill it in a sheet. */
export const isTyped = (field: Field): boolean => isFillable(field) && field.kind !== 'signature';

/** The column of a sheet in which people fill a field in. @param of what is said of the field before its limits */
export function fieldColumn(field: Field, heading: string, of: string): AnswerColumn {
  const required = isRequired(field);
  const limit = field.maxLength === null ? '' : ` At most ${field.maxLength} characters.`;
  return { heading, note: `${of}${required ? '. Must be filled.' : '.'}${limit}`, isRequired: required, choices: choicesOf(field) };
}
