import { stateDepth } from './state-depth.js';
import { readToUnicode } from './to-unicode.js';
import { contentTokens } from './tokens.js';

const bytes = (text: string): Uint8Array => Uint8Array.from(text, (char) => char.charCodeAt(0));

test('content is cut into tokens as ISO 32000-2, 7.8.2 has it: escapes, nested brackets, hexadecimal, comments, inline images', () => {
  const tokens = [...contentTokens(bytes('/F#31 12 Tf (a\\(b\\051(c)\\101) Tj <4 1 4> Tj % (no)\nBI /W 1 ID xQ q EI Q'))];
  expect(tokens).toEqual([
    { kind: 'name', text: 'F1' },
    { kind: 'number', value: 12 },
    { kind: 'operator', text: 'Tf' },
    { kind: 'string', text: 'a(b)(c)A' },
    { kind: 'operator', text: 'Tj' },
    { kind: 'string', text: 'A@' },
    { kind: 'operator', text: 'Tj' },
    { kind: 'operator', text: 'BI' },
    { kind: 'name', text: 'W' },
    { kind: 'number', value: 1 },
    { kind: 'inline' },
    { kind: 'operator', text: 'Q' },
  ]);
});

test.each([
  ['q Q', { opens: 0, closes: 0 }],
  ['q q Q', { opens: 0, closes: 1 }],
  ['Q Q q', { opens: 2, closes: 1 }],
])('states of %p are balanced by %p', (content, depth) => {
  expect(stateDepth([bytes(content)])).toEqual(depth);
});

test('ToUnicode is read by characters, ranges and lists, ligatures too (ISO 32000-2, 9.10.3)', () => {
  const { length, texts } = readToUnicode(
    bytes(
      '1 begincodespacerange <0000><ffff> endcodespacerange 1 beginbfchar <0003> <00660066> endbfchar 2 beginbfrange <0010> <0012> <0041> <0020> <0021> [<0061> <0062>] endbfrange',
    ),
  );
  expect(length).toBe(2);
  expect([...texts]).toEqual([
    [3, 'ff'],
    [16, 'A'],
    [17, 'B'],
    [18, 'C'],
    [32, 'a'],
    [33, 'b'],
  ]);
});
