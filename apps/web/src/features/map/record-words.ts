import type { Column } from '@mailbag/core';

/** Tells a record from others: its key, and the names on it. */
export function recordWords(
  columns: readonly Pick<Column, 'name'>[],
  keyColumn: string | null | undefined,
): (cells: readonly { text: string }[]) => { key: string; names: string } {
  const key = columns.findIndex(({ name }) => name === keyColumn);
  const names = columns
    .flatMap(({ name }, at) => (at !== key && /name|tenant|recipient|person|member$/i.test(name) ? [at] : []))
    .slice(0, 2);
  return (cells) => ({
    key: cells[key]?.text ?? '',
    names: names
      .map((at) => cells[at]?.text ?? '')
      .join(' ')
      .trim(),
  });
}
