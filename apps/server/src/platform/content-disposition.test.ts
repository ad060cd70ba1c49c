import { attachment } from './content-disposition.js';

/** What a reader makes of it: the coded name where it knows that (RFC 6266, 4.3; RFC 8187), the plain one otherwise. */
const readBack = (header: string): { plain: string; coded: string } => ({
  plain: /filename="([^"]*)"/.exec(header)![1]!,
  coded: decodeURIComponent(/filename\*=UTF-8''([^;]*)/.exec(header)![1]!),
});

test.each([
  ['Plot 12.pdf', 'Plot 12.pdf'],
  ['Pächter Łukasz.pdf', 'Pachter ukasz.pdf'],
  ['名前.pdf', '.pdf'],
  ['مرحبا', 'file'],
  ['a"b\\c.pdf', "a'b'c.pdf"],
  ["it's (1)*.pdf", "it's (1)*.pdf"],
])('“%s” arrives under its own name, and under one of plain letters where that is not understood', (name, plain) => {
  const header = attachment(name);
  expect(readBack(header)).toEqual({ plain, coded: name });
  // RFC 8187, 3.2.1: none of these may stand in a coded name as they are.
  expect(/filename\*=UTF-8''([^;]*)/.exec(header)![1]).not.toMatch(/['()*"\\ ]/);
  expect(header).not.toMatch(/[\r\n]/);
  expect(header.startsWith('attachment; ')).toBe(true);
});

test('what is shown in its place is not offered for saving', () => expect(attachment('a.pdf', 'inline')).toMatch(/^inline; /));
