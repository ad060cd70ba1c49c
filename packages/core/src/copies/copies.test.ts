import { checkCharacter, copyCode, isCopyCode } from './code.js';
import { pathKey, safeFileName, safeFolders, safeName, uniquePath } from './file-name.js';
import { foldedText, plainText, searchText, searchWords, textFinder } from './search-words.js';
import type { CopyState } from './states.js';
import { copyEvents, copyLaw, copyStates, nextCopyState } from './states.js';

describe('copy codes', () => {
  // ISO/IEC 7064, MOD 37,36. The example of the Global Release Identifier standard: A12425GABC1234002 has the check character M.
  test('have the check character of ISO/IEC 7064, MOD 37,36', () => {
    expect(checkCharacter('A12425GABC1234002')).toBe('M');
  });
  test('are recognised however they are typed, and a mistyped or swapped character is noticed', () => {
    const code = copyCode(Uint8Array.from([1, 2, 3, 40, 50, 60, 70, 80, 90, 100]));
    expect(isCopyCode(code)).toBe(true);
    expect(isCopyCode(code.toLowerCase().replace(/-/g, ' '))).toBe(true);
    const bare = code.replace(/-/g, '');
    for (let at = 0; at < 10; at++) {
      expect(isCopyCode(bare.slice(0, at) + (bare[at] === 'Z' ? 'Y' : 'Z') + bare.slice(at + 1))).toBe(false);
      if (at < 9 && bare[at] !== bare[at + 1])
        expect(isCopyCode(bare.slice(0, at) + bare[at + 1] + bare[at] + bare.slice(at + 2))).toBe(false);
    }
  });
});

describe('file names', () => {
  test.each([
    ['A/B: "C"?', 'A-B- -C--'],
    ['  .hidden. ', 'hidden'],
    ['CON', '_CON'],
    ['nul.pdf', '_nul.pdf'],
    ['\u202Efdp.exe', 'fdp.exe'],
    ['', '_'],
    ['..', '_'],
    ['Δάφνη Ρήγα', 'Δάφνη Ρήγα'],
  ])('%p becomes %p, which every usual file system takes', (given, made) => {
    expect(safeName(given)).toBe(made);
  });
  test('keep their extension however long they are, and whole characters', () => {
    const name = safeFileName(`${'ł'.repeat(300)}.pdf`, 'pdf');
    expect(name.endsWith('ł.pdf')).toBe(true);
    expect(Buffer.byteLength(name)).toBeLessThanOrEqual(204);
  });
  test('lead nowhere outside the archive', () => {
    expect(safeFolders('../../etc/./x//y\\..\\z')).toEqual(['etc', 'x', 'y', 'z']);
  });
  test('never meet on a file system that does not tell case or composition apart', () => {
    const taken = new Set([pathKey('2027/Zoë.pdf'), pathKey('2027/zoë (2).pdf')]);
    expect(uniquePath(['2027'], 'ZOE\u0308.pdf', (key) => taken.has(key))).toBe('2027/ZOE\u0308 (3).pdf');
  });
});

describe('the law of states', () => {
  test('lets nothing happen to a copy that is complete or withdrawn', () => {
    for (const event of copyEvents)
      for (const state of ['complete', 'withdrawn'] as CopyState[]) expect(nextCopyState(state, event)).toBeNull();
  });
  test('enters "sending" only from "queued", and hands over only from "sending"', () => {
    const into = (to: CopyState) => copyEvents.filter((event) => copyLaw[event].to === to).flatMap((event) => copyLaw[event].from);
    expect(into('sending')).toEqual(['queued']);
    expect(new Set(into('sent'))).toEqual(new Set(['sending', 'unconfirmed']));
  });
  test('can reach every state from the first one', () => {
    const reached = new Set<CopyState>(['planned']);
    for (let grown = true; grown;) {
      grown = false;
      for (const state of [...reached])
        for (const event of copyEvents) {
          const next = nextCopyState(state, event);
          if (next && !reached.has(next)) {
            reached.add(next);
            grown = true;
          }
        }
    }
    expect(reached).toEqual(new Set(copyStates));
  });
});

test.each([
  ['Łucja Ørsted', 'lucja', 'orsted'],
  ['Straße 12', 'strasse', '12'],
  ['Zoë Ó Derry', 'zoe', 'derry'],
  ['Þóra', 'thora', 'thora'],
])('%p is found by %p and %p, as people type it', (text, ...typed) => {
  const found = new Set(searchWords(searchText(text)));
  for (const word of typed) expect(found).toContain(word);
});

test('a text is found whatever its case; marks count only where some were typed', () => {
  const holds = (text: string, wanted: string): boolean => textFinder(wanted)(text);
  expect([holds('Zoë Brand', 'zoe'), holds('Zoë Brand', 'ZOË'), holds('Zoe Brand', 'zoë')]).toEqual([true, true, false]);
  expect([holds('Łąkowski', 'lakow'), holds('ŁĄKOWSKI', 'łąk'), holds('Lakowski', 'łąk')]).toEqual([true, true, false]);
  expect(holds('Zoe\u0308', 'zoë')).toBe(true);
});

test.each([
  'Zoë',
  'Zoe\u0308 \u0301e',
  'ŁĄKOWSKI Straße',
  'İstanbul ISPARTA',
  'ΟΔΟΣ Οδός',
  'Київ й',
  '京都 ガ',
  'ﬁ K Å',
  'Ω̈x',
  '',
  'plain 12',
])('looked for quickly, %p is what it is letter by letter', (text) => {
  const letters = { ł: 'l', ß: 'ss', ı: 'i' } as Record<string, string>;
  for (const twice of [text, text]) expect(plainText(twice)).toBe(foldedText(text).replace(/[łßı]/g, (letter) => letters[letter]!));
});
