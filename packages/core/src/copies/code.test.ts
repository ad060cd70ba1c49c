import { checkCharacter, copyCode, isCopyCode } from './code.js';

/** A random source that says the same at each run (Park and Miller, 1988). */
let state = 20_270_115;
const random = (): number => (state = (state * 48_271) % 2_147_483_647);
const codes = Array.from({ length: 300 }, () => copyCode(Uint8Array.from({ length: 10 }, () => random() & 255)));
const bareOf = (code: string): string => code.replace(/-/g, '');

test('codes have groups of four, four and three, of characters that nobody misreads', () => {
  for (const code of codes) {
    expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{2}[0-9A-Z]$/);
    expect(isCopyCode(code)).toBe(true);
  }
  expect(new Set(codes).size).toBe(codes.length);
});

/** ISO/IEC 7064, 4: a hybrid system finds every single wrong character and nearly every two neighbours that changed places. */
test('every single wrong character is found, whatever it is and wherever it stands', () => {
  for (const code of codes.slice(0, 60)) {
    const bare = bareOf(code);
    for (let at = 0; at < bare.length; at++)
      for (const other of '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ')
        if (other !== bare[at]) {
          const wrong = bare.slice(0, at) + other + bare.slice(at + 1);
          if (isCopyCode(wrong)) throw new Error(`${wrong} passes for ${bare}`);
        }
  }
});

test('nearly all neighbours that changed places are found', () => {
  let swaps = 0;
  let found = 0;
  for (const code of codes) {
    const bare = bareOf(code);
    for (let at = 0; at < bare.length - 1; at++) {
      if (bare[at] === bare[at + 1]) continue;
      swaps++;
      if (!isCopyCode(bare.slice(0, at) + bare[at + 1] + bare[at] + bare.slice(at + 2))) found++;
    }
  }
  expect(found / swaps).toBeGreaterThan(0.99);
});

test.each(['', 'ABC', '4KQ8-ZT0V-7QC1', '4KQ8-ZT0V-7!', '４KQ8ZT0V7QC', '4KQ8ZT0V7Q'])('“%s” is no code', (text) =>
  expect(isCopyCode(text)).toBe(false),
);

test('the check character is that of the standard’s own recursion, worked out another way', () => {
  // ISO/IEC 7064, 8.2: P1 = 36; each step (P + a) mod 36 (0 counts as 36), times 2, mod 37; the check character makes the last sum 1.
  const alphabet = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
  for (const code of codes.slice(0, 100)) {
    const bare = bareOf(code).slice(0, 10);
    const last = [...bare].reduce((p, char) => ((((p + alphabet.indexOf(char) - 1) % 36) + 1) * 2) % 37, 36);
    const check = [...alphabet].filter((char) => (last + alphabet.indexOf(char)) % 36 === 1);
    expect(check).toEqual([checkCharacter(bare)]);
  }
});
