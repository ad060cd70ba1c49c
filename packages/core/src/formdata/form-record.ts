import type { Cell } from '../tables/record.js';

/** The values of one filled form, by the names of its fields. */
export type FormRecord = Map<string, Cell>;

/** Sets a value under a name of its own: what stands twice is numbered. */
export function setValue(record: FormRecord, name: string, cell: Cell): void {
  let own = name;
  for (let count = 2; record.has(own); count++) own = `${name} ${count}`;
  record.set(own, cell);
}

export const textValue = (text: string): Cell => ({ text, value: text === '' ? null : text });
