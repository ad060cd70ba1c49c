import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { facesFor, isBeyondStandard } from '@mailbag/core';
import { addedFaces, bundledFaces, nodeFonts } from './node-fonts.js';

/** A collection of one face (OpenType specification, TTC header): every offset of the face moves by the header's length. */
function collectionOf(font: Buffer): Buffer {
  const header = Buffer.alloc(16);
  header.write('ttcf', 'latin1');
  header.writeUInt32BE(0x00010000, 4);
  header.writeUInt32BE(1, 8);
  header.writeUInt32BE(16, 12);
  const moved = Buffer.from(font);
  for (let table = 0; table < font.readUInt16BE(4); table++)
    moved.writeUInt32BE(font.readUInt32BE(12 + table * 16 + 8) + 16, 12 + table * 16 + 8);
  return Buffer.concat([header, moved]);
}

test('faces that the administrator adds are found in their folder, collections too; others are refused with a sentence', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-faces-'));
  const thai = bundledFaces.find(({ name }) => name.startsWith('NotoSansThai'))!.path;
  copyFileSync(thai, join(folder, 'Own face (2).ttf'));
  writeFileSync(join(folder, 'Pair.ttc'), collectionOf(readFileSync(thai)));
  writeFileSync(join(folder, 'broken.ttf'), 'no font');
  writeFileSync(join(folder, 'Sharp.otf'), 'OTTO and so on');
  writeFileSync(join(folder, 'read me.txt'), 'faces go here');
  const { faces, refused } = addedFaces(folder);
  expect(faces.map(({ name }) => name)).toEqual(['Ownface2', 'Pair']);
  expect(refused.map(({ why }) => why)).toEqual([
    '“Sharp.otf” has PostScript outlines, which copies cannot carry. Convert it to TrueType (.ttf), or take another face.',
    '“broken.ttf” is no font file.',
  ]);
  const { fonts } = await nodeFonts();
  const bytes = readFileSync(join(folder, 'Pair.ttc'));
  expect(fonts.openFace(bytes).covers('ก'.codePointAt(0)!)).toBe(true);
  // What copies carry is a face by itself.
  expect(Buffer.from(fonts.subset(bytes, ['ก'.codePointAt(0)!])).readUInt32BE()).toBe(0x00010000);
  expect(addedFaces(join(folder, 'missing'))).toEqual({ faces: [], refused: [] });
  rmSync(folder, { recursive: true, force: true });
});

test.each<[string, string[], number | null]>([
  ['letters of Western Europe', ['Zoë', 'Ünal', '€'], 0],
  ['a Polish name', ['Łódź'], 1],
  ['a Polish name written with marks of their own', ['Lo\u0301dz\u0301'], 1],
  ['a character that no face has', ['\u{e0100}x'], null],
])('%s are drawn with as few faces as do', async (_, texts, count) => {
  const { fonts, faces } = await nodeFonts();
  const asked: number[] = [];
  const found = await facesFor(fonts, texts, async (place) => {
    asked.push(place);
    return faces[place] ?? null;
  });
  expect(found).toEqual(faces.slice(0, count ?? faces.length));
  expect(asked).toHaveLength(count ?? faces.length + 1);
  expect(isBeyondStandard(texts.join(''))).toBe(count !== 0);
});
test('a face that lies far behind is reached, and nothing behind it is asked for', async () => {
  const { fonts, faces } = await nodeFonts();
  const found = await facesFor(fonts, ['ก'], async (place) => faces[place] ?? null);
  const last = found.at(-1)!;
  expect(last.name).toMatch(/Thai/);
  expect(found).toHaveLength(faces.indexOf(last) + 1);
});
