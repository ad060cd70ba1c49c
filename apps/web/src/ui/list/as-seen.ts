import { csvLine } from '@mailbag/core';
import type { ListColumn } from './column';

/** A list as it is seen, as CSV (RFC 4180) with a byte order mark, by which spreadsheet programs know UTF-8. */
export function csvOf<T>(columns: readonly ListColumn<T>[], rows: readonly T[]): string {
  const written = columns.filter(({ isTools }) => !isTools);
  const lines = rows.map((row) => csvLine(written.map(({ text }) => text(row))));
  return `\ufeff${csvLine(written.map(({ head }) => head))}${lines.join('')}`;
}

/** Hands text to the browser as a file. */
export function saveText(text: string, name: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
