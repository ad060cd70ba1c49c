import { t } from '@mailbag/core/words';
import type { Evaluation, Field, FieldValue, FillNote, FillRule } from '@mailbag/core';
import { graphemeCount, isRequired } from '@mailbag/core';
import { Check, CircleAlert, Minus, Ruler } from 'lucide-react';
import type { Tone } from '../../theme';

/** A value as the fill sheet tells it. */
export const valueWords = (field: Field, value: FieldValue | undefined): string => {
  if (value === undefined) return '—';
  if (value === true) return t`ticked`;
  if (value === false) return field.kind === 'checkbox' ? t`not ticked` : t`none chosen`;
  if (Array.isArray(value)) return value.join(', ') || t`blank`;
  if (field.kind === 'checkbox') return t`ticked`;
  return field.options.find((option) => option.value === value)?.label ?? (value === '' ? 'blank' : value);
};

/** How a field stands for one record, in a word. */
export interface FieldMark {
  tone: Tone;
  word: string;
  icon: React.ReactNode;
}

/** Of several marks the one that needs a person most. */
export const worstMark = (marks: readonly FieldMark[]): FieldMark =>
  [...marks].sort((one, other) => WEIGHT.indexOf(one.tone) - WEIGHT.indexOf(other.tone))[0]!;
const WEIGHT: Tone[] = ['brick', 'ochre', 'moss', 'plain'];

export function fieldMark(
  field: Field,
  rule: FillRule | undefined,
  evaluation: Evaluation | null,
  notes: readonly FillNote[],
  hasRecords: boolean,
): FieldMark {
  const problem = evaluation?.problems.find((one) => one.field === field.name);
  const note = notes.find((one) => one.field === field.name);
  const value = evaluation?.values[field.name];
  const isBlank = value === undefined || value === '' || value === false || (Array.isArray(value) && value.length === 0);
  if (problem) return { tone: 'brick', word: t`unknown`, icon: <CircleAlert /> };
  if (isRequired(field) && (!rule || (hasRecords && evaluation && isBlank)))
    return { tone: 'brick', word: t`required`, icon: <CircleAlert /> };
  if (note && note.characters.length > 0) return { tone: 'brick', word: t`no face`, icon: <CircleAlert /> };
  if (typeof value === 'string' && field.maxLength !== null && graphemeCount(value.normalize('NFC')) > field.maxLength)
    return { tone: 'brick', word: t`too long`, icon: <CircleAlert /> };
  if (note?.fit === 'overflows') return { tone: 'brick', word: t`too long`, icon: <Ruler /> };
  if (note?.fit === 'tight') return { tone: 'ochre', word: t`tight`, icon: <Ruler /> };
  if (!rule) return { tone: 'plain', word: t`open`, icon: <Minus /> };
  if (isBlank) return { tone: 'plain', word: t`blank`, icon: <Minus /> };
  return { tone: 'moss', word: t`fits`, icon: <Check /> };
}
