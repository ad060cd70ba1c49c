import { t } from '@mailbag/core/words';
import type { Calculation, Field, FormatScript } from '@mailbag/core';
import { applyFormat } from '@mailbag/core';

/** A name with its telling end: the parts above it, which it has in common with many, are left out where it is long. */
export const nameEnd = (name: string): string => (name.length > 34 && name.includes('.') ? `…${name.split('.').at(-1)!}` : name);

/** Where the words that a field is called by come from. */
export function labelSourceWords({ labelFrom, label }: Field): string {
  if (labelFrom === undefined) return label ? t`what is printed beside it: ${label}` : '';
  return { print: t`what is printed beside it`, tooltip: t`its tooltip`, name: t`its technical name`, none: '' }[labelFrom ?? 'none'];
}

/** What limits the values of a field, each a short sentence. */
export function fieldLimits(field: Field): string[] {
  const limits: string[] = [];
  if (field.flags.includes('required')) limits.push('required');
  if (field.flags.includes('readOnly')) limits.push('read-only');
  if (field.maxLength !== null && !field.flags.includes('comb')) limits.push(t`at most ${field.maxLength} characters`);
  const shown = field.widgets.filter((widget) => widget.page > 0).length;
  if (shown > 1 && field.kind !== 'radio') limits.push(t`stands in ${shown} places`);
  return limits;
}

const operations: Record<Calculation['operation'], string> = {
  sum: t`the sum`,
  product: t`the product`,
  average: t`the average`,
  minimum: t`the smallest`,
  maximum: t`the largest`,
  formula: t`a formula`,
};
/** A value of each kind, to show what a format does with it. */
const samples: Record<FormatScript['kind'], string> = {
  number: '1234.5',
  percent: '0.125',
  date: '2027-02-01',
  time: '14:05',
  special: '',
};

/** How the form's author lets a value be shown, by an example; '' where there is no format. */
export function formatWords({ format }: Field): string {
  if (!format) return '';
  if ('which' in format) return [t`postal code`, t`long postal code`, t`telephone number`, t`social security number`][format.which]!;
  return t`${samples[format.kind]} is shown as ${applyFormat(format, samples[format.kind])}`;
}

/** How the form's author works a value out; '' where there is none. */
export const calculationWords = ({ calculation }: Field): string =>
  calculation ? t`${operations[calculation.operation]} of ${calculation.fields.join(', ')}` : '';
