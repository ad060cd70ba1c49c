import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { ShapingFace } from '../../../platform/ports.js';
import { CodeTable } from '../composite-font.js';
import { standardFace } from './coded-face.js';
import { bidi } from './bidi-package.js';
import { embeddingLevels } from './embedding-levels.js';
import { shapeLine, undrawable } from './text-run.js';

/** A face that has every character and draws each as a glyph of its own number. */
const everything: ShapingFace = {
  unitsPerEm: 1000,
  ascender: 800,
  descender: -200,
  silent: undefined,
  ink: () => ({ top: 0, bottom: 0 }),
  outline: () => '',
  covers: (codePoint) => codePoint > 0x7f || codePoint < 0,
  shape(text, direction) {
    const glyphs = Array.from(text, (char) => ({ glyph: char.codePointAt(0)!, cluster: 0, advance: 500, dx: 0, dy: 0 }));
    return direction === 'rtl' ? glyphs.reverse() : glyphs;
  },
};
const choice = {
  coded: [standardFace('Helvetica')] as const,
  extras: [{ index: 0, name: 'Everything', face: everything, table: new CodeTable() }],
};

/** Characters in the order in which they are drawn. Mirroring is left to shaping there, and not what is looked at here. */
const drawn = (text: string): string[] =>
  shapeLine(text, choice).flatMap((run) =>
    run.kind === 'coded' ? [...run.text] : run.glyphs.map(({ glyph }) => String.fromCodePoint(glyph)),
  );

const cases = readFileSync(join(process.cwd(), 'packages/core/src/testing/bidi-character-test.txt'), 'utf8')
  .split('\n')
  .filter((line) => line && !line.startsWith('#'));

/** What orders text and is never drawn: embeddings, overrides, isolates and marks (UAX #9, table 4). */
const isControl = (char: string): boolean => /[\u200e\u200f\u061c\u202a-\u202e\u2066-\u2069]/.test(char);
const pairs: Record<string, string> = { '(': ')', ')': '(', '[': ']', ']': '[', '{': '}', '}': '{', '<': '>', '>': '<' };
const unmirrored = (char: string): string => (pairs[char] && pairs[char]! < char ? pairs[char]! : char);

test('text of both directions is drawn in the order that UAX #9 asks for, over a sample of its conformance cases', () => {
  expect(cases.length).toBeGreaterThan(200);
  const wrong = cases.filter((line) => {
    const [points = '', , , , order = ''] = line.split(';');
    const chars = points.split(' ').map((point) => String.fromCodePoint(Number.parseInt(point, 16)));
    const want = order
      .split(' ')
      .filter(Boolean)
      .map((at) => chars[Number(at)]!)
      .filter((char) => !isControl(char));
    return drawn(chars.join('')).map(unmirrored).join('') !== want.map(unmirrored).join('');
  });
  expect(wrong).toEqual([]);
});

test('levels told unit by unit are those of the package, over random texts of letters, marks, digits and spaces', () => {
  const alphabet = ['א', 'ب', 'ل', '\u05b7', '\u064b', '7', '٣', '۴', ' ', '\u2003', 'a', '-', '(', '.', '\t', '\u{10a00}'];
  let state = 7;
  const random = (below: number): number => (state = (state * 48_271) % 2_147_483_647) % below;
  for (let count = 0; count < 5000; count++) {
    // Most texts keep to what can be told unit by unit; some have other characters too.
    const some = count % 4 === 0 ? alphabet : alphabet.slice(0, 10);
    const text = Array.from({ length: 1 + random(12) }, () => some[random(some.length)]).join('');
    expect({ text, levels: [...embeddingLevels(text)] }).toEqual({ text, levels: [...bidi.getEmbeddingLevels(text).levels] });
  }
});

test('brackets in Hebrew text open to the right side (UAX #9, rule L4)', () => {
  expect(drawn('שלום (1)').join('')).toBe('(1) םולש');
});

test('an accent typed as a character of its own is joined with its letter, so that the standard fonts can draw it', () => {
  expect(drawn('Zoe\u0308')).toEqual(['Z', 'o', 'ë']);
});

test('what orders text is not missed by any face, and what no face has is named once', () => {
  const latin = { coded: choice.coded, extras: [] };
  expect(undrawable('\u200eAnna\u202c', latin)).toEqual([]);
  expect(undrawable('김김 Kim 漢', latin)).toEqual(['김', '漢']);
});
