import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeCopy } from './write-copy.js';

test('a copy is written whole, its parts one after the other, over what was there', () => {
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-write-'));
  const path = join(folder, 'copy.pdf');
  writeCopy(path, { parts: [Buffer.alloc(3_000_000, 'a'), Buffer.from('tail')] });
  writeCopy(path, { parts: [Buffer.from('base '), Buffer.from('tail')] });
  expect(readFileSync(path, 'utf8')).toBe('base tail');
  expect(() => writeCopy(join(folder, 'missing', 'copy.pdf'), { parts: [Buffer.from('x')] })).toThrow('ENOENT');
  rmSync(folder, { recursive: true, force: true });
});
