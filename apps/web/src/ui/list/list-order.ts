import { spokenLocale } from '@mailbag/core/words';
import type { Sortable } from './column';

/** How a list is ordered; null: as it comes. */
export type ListOrder = { column: string; isDown: boolean } | null;

/** The order that stands in an address: a column, with a minus where it goes down. */
export function readOrder(text: string | null, columns: readonly string[]): ListOrder {
  if (text === null) return null;
  const isDown = text.startsWith('-');
  const column = isDown ? text.slice(1) : text;
  return columns.includes(column) ? { column, isDown } : null;
}
export const orderText = (order: ListOrder): string | null => order && `${order.isDown ? '-' : ''}${order.column}`;

/** What a press on a heading makes of an order: up, down, and as it came again. */
export function nextOrder(order: ListOrder, column: string): ListOrder {
  if (order?.column !== column) return { column, isDown: false };
  return order.isDown ? null : { column, isDown: true };
}

const collator = new Intl.Collator(spokenLocale(), { numeric: true, sensitivity: 'base' });

/** Compares as people order: 9 before 10, small and capital letters alike. */
export const compareCells = (one: Sortable, other: Sortable): number =>
  typeof one === 'number' && typeof other === 'number' ? one - other : collator.compare(String(one), String(other));

/** Whether a text holds all words that are looked for, wherever they stand. */
export function holdsWords(text: string, words: string): boolean {
  const within = text.toLocaleLowerCase();
  return words
    .toLocaleLowerCase()
    .split(/\s+/)
    .every((word) => within.includes(word));
}
