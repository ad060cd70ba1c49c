/** @jest-environment ./testing/browser-environment.mjs */
import { cellsOfHtml, htmlOf, readCells, writeCells } from './clipboard-cells';

/** A clipboard as browsers hand it over (Clipboard API and events, W3C). */
const clipboard = (stored: Record<string, string> = {}): DataTransfer =>
  ({
    getData: (kind: string) => stored[kind] ?? '',
    setData: (kind: string, text: string) => (stored[kind] = text),
  }) as unknown as DataTransfer;
const cells = [
  ['Ada <Quist>', 'two\nlines'],
  ['', 'a & "b"'],
];
test('cells are copied as text and as a table, and come back from either', () => {
  expect(cellsOfHtml(htmlOf(cells))).toEqual(cells);
  const stored: Record<string, string> = {};
  writeCells(clipboard(stored), cells);
  expect(readCells(clipboard(stored))).toEqual(cells);
  expect(readCells(clipboard({ 'text/html': stored['text/html']! }))).toEqual(cells);
});
test('a table of a program that writes is taken apart; other HTML is text', () => {
  const html = '<html><body><p>Before</p><table><tr><th> Name </th><td>Ada<br>Quist</td></tr></table></body></html>';
  expect(readCells(clipboard({ 'text/html': html, 'text/plain': 'Before Name Ada Quist' }))).toEqual([['Name', 'Ada\nQuist']]);
  expect(readCells(clipboard({ 'text/html': '<p>Ada</p>', 'text/plain': 'Ada' }))).toEqual([['Ada']]);
});
