import type { Field } from '../pdf/field.js';

/** A text field without limits, with what a test wants to be different. */
export const field = (name: string, more: Partial<Field> = {}): Field => ({
  name,
  kind: 'text',
  partialName: name,
  tooltip: null,
  label: null,
  page: 1,
  flags: [],
  maxLength: null,
  options: [],
  onValues: [],
  value: null,
  defaultValue: null,
  format: null,
  calculation: null,
  isPassword: false,
  widgets: [],
  ...more,
});
