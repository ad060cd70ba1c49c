import type { Field, FieldKind } from '@mailbag/core';

const kinds: Record<FieldKind, string> = {
  text: 'text',
  checkbox: 'tick box',
  radio: 'radio buttons',
  combo: 'menu',
  list: 'list',
  signature: 'signature',
  button: 'push button',
};

/** The kind of a field in words. */
export function kindWords(field: Field): string {
  if (field.flags.includes('comb')) return `comb, ${field.maxLength} cells`;
  if (field.flags.includes('multiline')) return 'text, several lines';
  return kinds[field.kind];
}

/** What limits the values of a field, each a short sentence. */
export function fieldLimits(field: Field): string[] {
  const limits: string[] = [];
  if (field.flags.includes('required')) limits.push('required');
  if (field.flags.includes('readOnly')) limits.push('read-only');
  if (field.maxLength !== null && !field.flags.includes('comb')) limits.push(`at most ${field.maxLength} characters`);
  const shown = field.widgets.filter((widget) => widget.page > 0).length;
  if (shown > 1 && field.kind !== 'radio') limits.push(`stands in ${shown} places`);
  return limits;
}
