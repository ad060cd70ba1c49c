import { toldOf } from '../../testing/findings.js';

/** White space of Unicode (property White_Space) that a sheet may hold within a line, and what is drawn with no width (Default_Ignorable). */
const wide = [...'\u00a0\u1680\u2000\u2001\u2002\u2003\u2004\u2005\u2006\u2007\u2008\u2009\u200a\u202f\u205f\u3000'];
const none = [...'\u200b\u2060\ufeff'];
const nameOf = (char: string): string => `U+${char.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`;

test.each(wide.map((char) => [nameOf(char), char]))('%s inside is an odd space, and a plain one is proposed', (_, char) => {
  expect(toldOf('text', [`Ada${char}Quist`], 'odd-space')).toEqual([[`Ada${char}Quist`, 'Ada Quist']]);
});
test.each(none.map((char) => [nameOf(char), char]))('%s inside is odd, and nothing is proposed in its place', (_, char) => {
  expect(toldOf('text', [`Ada${char}Quist`], 'odd-space')).toEqual([[`Ada${char}Quist`, 'AdaQuist']]);
});

test.each([
  [' Ada', 'Ada'],
  ['Ada ', 'Ada'],
  ['\tAda\n', 'Ada'],
  ['\u00a0Ada', 'Ada'],
])('%j starts or ends with a space', (text, mend) => expect(toldOf('text', [text], 'stray-space')).toEqual([[text, mend]]));

test.each(['Ada Quist', 'Reed Lane 1\nLarkmere', 'a\tb', '', '   ', 'Zoë'])('%j is as it should be, or blank', (text) => {
  expect([...toldOf('text', [text], 'odd-space'), ...toldOf('text', [text], 'stray-space')]).toEqual([]);
});

test('both together are told as the one that shows, and mended in two steps', () => {
  const [[, once] = ['', null]] = toldOf('text', [' Ada  Quist '], 'stray-space');
  expect(once).toBe('Ada  Quist');
  expect(toldOf('text', [once!], 'odd-space')).toEqual([[once, 'Ada Quist']]);
});
