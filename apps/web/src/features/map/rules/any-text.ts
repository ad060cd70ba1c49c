import type { Field } from '@mailbag/core';

/** A field that takes any text: a part whose value is worked on further stands for no field. */
export const anyText: Field = {
  name: '',
  partialName: '',
  kind: 'text',
  page: 0,
  tooltip: null,
  label: null,
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
};
