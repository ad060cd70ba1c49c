import { cpSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { STAMP } from './layout.js';
import type { FolderMemory } from './stamp.js';
import { FolderStamp, stampRestored } from './stamp.js';

const parent = mkdtempSync(join(tmpdir(), 'mailbag-stamp-'));
afterAll(() => rmSync(parent, { recursive: true, force: true }));
let count = 0;
/** A folder that was in use, with what its database knows. */
function used(claims: number): { folder: string; memory: FolderMemory } {
  const folder = join(parent, `data ${++count}`);
  mkdirSync(folder);
  const { stamp, displaced } = FolderStamp.open(folder, null);
  expect(displaced).toBeNull();
  stamp.claimed(claims);
  stamp.close();
  return { folder, memory: { folder: stamp.folder, claims } };
}
const look = (folder: string, memory: FolderMemory | null): string | null => {
  const { stamp, displaced } = FolderStamp.open(folder, memory);
  stamp.close();
  return displaced?.why ?? null;
};

test('a folder that starts again where it stood is the one that it was, also after it was renamed', () => {
  const { folder, memory } = used(7);
  expect(look(folder, memory)).toBeNull();
  // A kill between the commit and the stamp leaves the database ahead.
  expect(look(folder, { ...memory, claims: 9 })).toBeNull();
  renameSync(folder, `${folder} elsewhere`);
  expect(look(`${folder} elsewhere`, { ...memory, claims: 9 })).toBeNull();
});
test('a copied folder is told, once, and the one that it was copied from is not', () => {
  const { folder, memory } = used(7);
  cpSync(folder, `${folder} copy`, { recursive: true });
  expect(look(`${folder} copy`, memory)).toBe('copied');
  expect(look(folder, memory)).toBeNull();
});
test('a copy has a name of its own from then on', () => {
  const { folder, memory } = used(1);
  cpSync(folder, `${folder} copy`, { recursive: true });
  const { stamp } = FolderStamp.open(`${folder} copy`, memory);
  expect(stamp.folder).not.toBe(memory.folder);
  stamp.close();
  expect(look(`${folder} copy`, { folder: stamp.folder, claims: 1 })).toBeNull();
});
test.each<[string, (memory: FolderMemory) => FolderMemory | null]>([
  ['is some messages older', (memory) => ({ ...memory, claims: memory.claims - 1 })],
  ['belongs to another folder', (memory) => ({ ...memory, folder: 'another' })],
  ['is from a version that knew no stamps', () => null],
])('a database that %s is told', (_, old) => {
  const { folder, memory } = used(7);
  expect(look(folder, old(memory))).toBe('older database');
});
test('a stamp that is lost or torn counts as a copy', () => {
  const { folder, memory } = used(3);
  writeFileSync(join(folder, STAMP), readFileSync(join(folder, STAMP)).subarray(0, 20));
  expect(look(folder, memory)).toBe('copied');
  rmSync(join(folder, STAMP));
  expect(look(folder, memory)).toBe('copied');
});
test('a folder that was brought back says from what and when it was taken', () => {
  const folder = join(parent, 'restored');
  mkdirSync(folder);
  stampRestored(folder, { at: '2027-01-16T08:00:00.000Z', takenAt: '2027-01-15T22:00:00.000Z', from: 'mailbag.zip' });
  const { stamp, displaced } = FolderStamp.open(folder, { folder: 'x', claims: 5 });
  stamp.close();
  expect(displaced).toEqual({ why: 'restored', takenAt: '2027-01-15T22:00:00.000Z', from: 'mailbag.zip' });
});
