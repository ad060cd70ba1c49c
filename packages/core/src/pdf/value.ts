/** What goes into a field: text or an option, an on-value or true/false for buttons, several options for lists. */
export type FieldValue = string | boolean | string[];
export type FieldValues = Record<string, FieldValue>;

/** How a value sits in its box. `tight`: only at a smaller type size; `overflows`: not even then. */
export type Fit = 'fits' | 'tight' | 'overflows';
