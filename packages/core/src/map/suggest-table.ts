import type { Field } from '../pdf/field.js';
import type { Column } from '../tables/record.js';
import { normalised } from './choose.js';
import type { Translation } from './kinds/translate.js';

const YES = ['yes', 'y', 'true', '1', 'x'];
const NO = ['no', 'n', 'false', '0'];
const yesWords = new Set([...YES, 'ja', 'oui', 'si', 'sí', 'да', 'on']);
const noWords = new Set([...NO, 'nein', 'non', 'нет', 'off']);

/** A translation table to start from: yes and no for tick boxes, the options and the column's own values for choices. */
export function suggestTable(field: Field, column: Column | undefined): Translation[] {
  const table = new Map<string, Translation>();
  const add = (from: string, to: string): void => {
    if (from && !table.has(normalised(from))) table.set(normalised(from), { from, to });
  };
  if (field.kind === 'checkbox') {
    const on = field.onValues[0] ?? 'Yes';
    for (const example of column?.examples ?? []) {
      if (yesWords.has(normalised(example))) add(example, on);
      else if (noWords.has(normalised(example))) add(example, 'Off');
    }
    YES.forEach((word) => add(word, on));
    NO.forEach((word) => add(word, 'Off'));
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
