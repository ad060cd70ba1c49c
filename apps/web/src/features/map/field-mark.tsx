import { t } from '@mailbag/core/words';
import type { Evaluation, Field, FieldValue, FieldVerdict, FillNote, FillRule } from '@mailbag/core';
import { fieldVerdict } from '@mailbag/core';
import { Check, CircleAlert, Minus, Ruler } from 'lucide-react';
import type { Tone } from '../../theme';

/** A value as the fill sheet tells it. */
export const valueWords = (field: Field, value: FieldValue | undefined): string => {
  if (value === undefined) return '—';
  if (value === true) return t`ticked`;
  if (value === false) return field.kind === 'checkbox' ? t`not ticked` : t`none chosen`;
  if (Array.isArray(value)) return value.join(', ') || t`blank`;
  if (field.kind === 'checkbox') return t`ticked`;
  return field.options.find((option) => option.value === value)?.label ?? (value === '' ? t`blank` : value);
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

/** Core's verdict on a field in a word, with its colour and symbol. */
const MARKS: Readonly<Record<FieldVerdict, FieldMark>> = {
  untranslated: { tone: 'brick', word: t`unknown`, icon: <CircleAlert /> },
  required: { tone: 'brick', word: t`required`, icon: <CircleAlert /> },
  'cannot-draw': { tone: 'brick', word: t`no face`, icon: <CircleAlert /> },
  'too-long': { tone: 'brick', word: t`too long`, icon: <CircleAlert /> },
  overflows: { tone: 'brick', word: t`too long`, icon: <Ruler /> },
  tight: { tone: 'ochre', word: t`tight`, icon: <Ruler /> },
  open: { tone: 'plain', word: t`open`, icon: <Minus /> },
  blank: { tone: 'plain', word: t`blank`, icon: <Minus /> },
  fits: { tone: 'moss', word: t`fits`, icon: <Check /> },
};

/** @param evaluation what the map makes of a record; null: there is no record yet */
export const fieldMark = (field: Field, rule: FillRule | undefined, evaluation: Evaluation | null, notes: readonly FillNote[]): FieldMark =>
  MARKS[fieldVerdict(field, rule, evaluation, notes)];
