import type { Column } from '@mailbag/core';
import { nameColumns } from '@mailbag/core';

/** Tells a record from others: its key, and the names on it. */
export function recordWords(
  columns: readonly Pick<Column, 'name' | 'examples'>[],
  keyColumn: string | null | undefined,
): (cells: readonly { text: string }[]) => { key: string; names: string } {
  const key = columns.findIndex(({ name }) => name === keyColumn);
  const { firstName, surname, whole } = nameColumns(columns);
  const names = (firstName && surname ? [firstName, surname] : [whole])
    .map((column) => (column ? columns.indexOf(column) : -1))
    .filter((at) => at >= 0 && at !== key);
  return (cells) => ({
    key: cells[key]?.text ?? '',
    names: names
      .map((at) => cells[at]?.text ?? '')
      .join(' ')
      .trim(),
  });
}
