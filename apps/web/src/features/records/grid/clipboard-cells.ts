import { tabCells, tabText } from '@mailbag/core';

const escapes: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string => text.replace(/[&<>"]/g, (char) => escapes[char]!).replace(/\r?\n/g, '<br>');

/** Cells as a table, which programs that write texts and messages take. */
export const htmlOf = (cells: readonly (readonly string[])[]): string =>
  `<table><tbody>${cells.map((row) => `<tr>${row.map((cell) => `<td>${escaped(cell)}</td>`).join('')}</tr>`).join('')}</tbody></table>`;

/** The cells of the first table in some HTML; null: it has none. */
export function cellsOfHtml(html: string): string[][] | null {
  const table = new DOMParser().parseFromString(html, 'text/html').querySelector('table');
  if (!table) return null;
  for (const line of table.querySelectorAll('br')) line.replaceWith('\n');
  return [...table.rows].map((row) => [...row.cells].map((cell) => (cell.textContent ?? '').trim()));
}

/** What is put on the clipboard: text for spreadsheets and editors, a table for programs that write. */
export function writeCells(clipboard: DataTransfer, cells: readonly (readonly string[])[]): void {
  clipboard.setData('text/plain', tabText(cells));
  clipboard.setData('text/html', htmlOf(cells));
}

/** What lies on the clipboard. Text comes first: spreadsheet programs write values as they are seen into it; a table in HTML where it has no tabs. */
export function readCells(clipboard: DataTransfer): string[][] {
  const text = clipboard.getData('text/plain');
  const html = clipboard.getData('text/html');
  return (!text.includes('\t') && html !== '' ? cellsOfHtml(html) : null) ?? tabCells(text);
}
