import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { addedFaces, bundledFaces } from './node-fonts.js';

test('faces that the administrator adds are found in their folder; what is no TrueType font is left aside', () => {
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-faces-'));
  copyFileSync(bundledFaces.at(-1)!.path, join(folder, 'Own face (2).ttf'));
  writeFileSync(join(folder, 'broken.ttf'), 'no font');
  writeFileSync(join(folder, 'read me.txt'), 'faces go here');
  expect(addedFaces(folder).map(({ name }) => name)).toEqual(['Ownface2']);
  expect(addedFaces(join(folder, 'missing'))).toEqual([]);
  rmSync(folder, { recursive: true, force: true });
});
