import Papa from 'papaparse';
import { csvLine } from './csv-line.js';

test('a line is read by another program as it was meant (RFC 4180), and text that would run as a formula is text', () => {
  const cells = ['Ann "Roe"', 'a,b', 'two\nlines', '', null, 12, -3];
  expect(Papa.parse(csvLine(cells)).data[0]).toEqual(['Ann "Roe"', 'a,b', 'two\nlines', '', '', '12', '-3']);
  // Common practice against formulas in spreadsheets, no source: a leading apostrophe.
  expect(['=1+1', '+49', '-x', '@a', '\tx'].map((one) => csvLine([one]).trimEnd())).toEqual(["'=1+1", "'+49", "'-x", "'@a", "'\tx"]);
});
