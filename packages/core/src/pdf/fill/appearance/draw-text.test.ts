import { testFaces, testFonts } from '../../../testing/platform.js';
import { CodeTable } from '../composite-font.js';
import { standardFace } from './coded-face.js';
import { tellers } from './draw-text.js';
import type { FaceChoice } from './text-run.js';
import { shapeLine } from './text-run.js';

let choice: FaceChoice;
beforeAll(async () => {
  const fonts = await testFonts();
  const extras = testFaces().map(({ name, bytes }, index) => ({ index, name, face: fonts.openFace(bytes), table: new CodeTable() }));
  choice = { coded: [standardFace('Helvetica')], extras };
});

// Some readers go by the advance of the glyph itself, others by the width of its code: what advances and tells nothing is a gap to the first kind.
test.each([
  ['Devanagari, a vowel drawn before its consonant', 'हिन्दी'],
  ['Devanagari, conjuncts', 'त्र्यंबक'],
  ['Bengali, a vowel drawn before a conjunct', 'ক্ষেত্র'],
  ['Bengali, a mark after a vowel', 'বাংলা'],
  ['Tamil', 'தமிழ்நாடு'],
  ['Tamil, vowels of two parts around their consonant', 'கோபால'],
  ['Thai, a vowel that is also a mark', 'น้ำใจ'],
  ['Latin', 'Ấnä'],
])('no glyph that advances is without text: %s', (_, word) => {
  let told = '';
  for (const run of shapeLine(word, choice)) {
    if (run.kind !== 'shaped') {
      told += run.text;
      continue;
    }
    tellers(run).forEach(({ text, lead }, index) => {
      if (run.glyphs[index]!.advance > 0) expect(text).not.toBe('');
      told += lead + text;
    });
  }
  expect(told.normalize('NFC')).toBe(word.normalize('NFC'));
});

test('widths of a word’s codes add up to what its glyphs advance', () => {
  for (const word of ['हिन्दी', 'শ্রী', 'مرحبا', 'לשלום', 'น้ำ']) {
    for (const run of shapeLine(word, choice)) {
      if (run.kind !== 'shaped') continue;
      const sum = tellers(run).reduce((all, { width, lead }) => all + width + (lead ? 1 : 0), 0);
      expect(sum).toBeCloseTo(run.width, 6);
    }
  }
});
