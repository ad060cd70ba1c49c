import type { Cell } from '../tables/record.js';

/** The values of one filled form, by the names of its fields. */
export type FormRecord = Map<string, Cell>;

/** How often a name came in a record, so that the thousandth is not looked for from the second on. */
const times = new WeakMap<FormRecord, Map<string, number>>();

/** Sets a value under a name of its own: what stands twice is numbered. */
export function setValue(record: FormRecord, name: string, cell: Cell): void {
  let own = name;
  if (record.has(own)) {
    let seen = times.get(record);
    if (!seen) times.set(record, (seen = new Map()));
    let count = seen.get(name) ?? 1;
    do own = `${name} ${++count}`;
    while (record.has(own));
    seen.set(name, count);
  }
  record.set(own, cell);
}

export const textValue = (text: string): Cell => ({ text, value: text === '' ? null : text });
