import { slugOf } from '../tables/headings.js';
import type { DrawnField } from '../pdf/write/drawn-field.js';
import { drawnField } from '../pdf/write/drawn-field.js';
import type { Blank } from './blank.js';

/** Points of type in which a blank of one line is written. */
const SIZE = 10;

/** Fields for blanks, called by what is printed for them; two of the same words are numbered. */
export function fieldsOfBlanks(blanks: readonly Blank[]): DrawnField[] {
  const taken = new Set<string>();
  return blanks.map(({ page, rect, kind, cells, label, group }): DrawnField => {
    const words = [group, label].filter((one) => one !== null).join(' ');
    const base = words === '' ? `${kind}_p${page}` : slugOf(words).slice(0, 60);
    let name = base;
    for (let number = 2; taken.has(name); number++) name = `${base}_${number}`;
    taken.add(name);
    return drawnField({
      name,
      kind,
      page,
      rect,
      cells,
      label: group && label ? `${group}: ${label}` : label,
      size: kind === 'text' || kind === 'date' ? SIZE : 0,
    });
  });
}
