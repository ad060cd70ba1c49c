import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const folder = 'apps/server/dist/bundle';
const files = readdirSync(folder).filter((name) => name.endsWith('.cjs') && name !== 'code-cache.cjs');

/** Modules are strict, scripts are so where they say it (ECMAScript 2023, 11.2.2); a write to what is frozen would be lost without a word. */
test('what was written as modules is strict in the bundle too', () => {
  expect(files).toContain('main.cjs');
  expect(files.filter((name) => !readFileSync(join(folder, name), 'utf8').startsWith('"use strict";'))).toEqual([]);
});

test('every file of the bundle has been compiled beforehand', () => {
  expect(files.filter((name) => !existsSync(join(folder, `${name}.cache`)))).toEqual([]);
});
