import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { KEY } from '@mailbag/folder/layout';
import { config } from '../platform/config.js';
import { forgetKey } from '../platform/secret-box.js';
import { keyOfMend, mendedBy } from './asked-back.js';

const folder = mkdtempSync(join(tmpdir(), 'mailbag-key-'));
const before = config.dataFolder;
beforeAll(() => {
  config.dataFolder = folder;
  writeFileSync(join(folder, KEY), Buffer.alloc(32, 7));
  forgetKey();
});
afterAll(() => {
  config.dataFolder = before;
  forgetKey();
  rmSync(folder, { recursive: true });
});

test('a key that the office made says which answer it mends, and is one that the page takes', () => {
  const key = keyOfMend(41);
  expect(mendedBy(key)).toBe(41);
  // As a submission's key has to be.
  expect(key).toMatch(/^[\w-]{16,64}$/);
  expect(keyOfMend(41)).not.toBe(key);
});

test.each([
  ['a key of a visitor', () => 'a'.repeat(40)],
  ['another answer', () => keyOfMend(41).replace('mend-41-', 'mend-42-')],
  ['another seal', () => `${keyOfMend(41).slice(0, -3)}AAA`],
  ['no seal', () => 'mend-41-abcdefghijkl'],
])('%s mends nothing', (_, key) => expect(mendedBy(key())).toBeNull());
