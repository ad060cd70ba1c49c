import type { Field } from '../pdf/field.js';
import type { Column } from '../tables/record.js';
import { noWords, yesNoWords, yesWords } from '../tables/yes-no.js';
import { normalised } from './choose.js';
import type { Translation } from './kinds/translate.js';

/** A translation table to start from: yes and no for tick boxes, the options and the column's own values for choices. */
export function suggestTable(field: Field, column: Column | undefined): Translation[] {
  const table = new Map<string, Translation>();
  const add = (from: string, to: string): void => {
    if (from && !table.has(normalised(from))) table.set(normalised(from), { from, to });
  };
  if (field.kind === 'checkbox') {
    const on = field.onValues[0] ?? 'Yes';
    const examples = column?.examples.map((example) => [example, normalised(example)] as const) ?? [];
    for (const [example, word] of examples) {
      if (yesWords.has(word)) add(example, on);
      else if (noWords.has(word)) add(example, 'Off');
    }
    // The samples of a column may all be yes: the no of their language belongs to it.
    for (const [at, { yes, no }] of yesNoWords.entries()) {
      if (at > 0 && !examples.some(([, word]) => yes.includes(word) || no.includes(word))) continue;
      for (const word of yes) add(word, on);
      for (const word of no) add(word, 'Off');
    }
    return [...table.values()];
  }
  const targets =
    field.kind === 'radio' ? field.onValues.map((on, index) => ({ value: on, label: field.options[index]?.label ?? on })) : field.options;
  for (const target of targets) add(target.label, target.value);
  for (const target of targets) add(target.value, target.value);
  for (const example of column?.examples ?? []) {
    if (table.has(normalised(example))) continue;
    const near = targets.find((target) => {
      const [a, b] = [normalised(target.label), normalised(example)];
      return b.length > 2 && (a.startsWith(b) || b.startsWith(a));
    });
    if (near) add(example, near.value);
  }
  return [...table.values()];
}
