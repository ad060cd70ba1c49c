import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'rolldown';

/** Core in few files, for tests that use it and do not test it: each of them loads it, which takes a fraction of the time so. */
export const FOLDER = 'node_modules/.cache/mailbag-core';
export const SOURCES = 'packages/core/src';
/** By the name under which the package gives it out. */
export const ENTRIES = { core: 'index.ts', errors: 'errors/catalogue.ts', intake: 'intake/index.ts', words: 'words/words.ts' };

const time = (path) => (existsSync(path) ? statSync(path).mtimeMs : 0);

/** Before the first test, where a source is newer. */
export default async function bundleCore({ rootDir } = { rootDir: process.cwd() }) {
  const written = readdirSync(join(rootDir, SOURCES), { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map(({ parentPath, path, name }) => time(join(parentPath ?? path, name)));
  if (time(join(rootDir, FOLDER, 'core.cjs')) > Math.max(...written, time(join(rootDir, 'package-lock.json')))) return;
  await build({
    cwd: rootDir,
    input: Object.fromEntries(Object.entries(ENTRIES).map(([name, file]) => [name, join(rootDir, SOURCES, file)])),
    platform: 'node',
    external: ['harfbuzzjs'],
    output: {
      dir: join(rootDir, FOLDER),
      format: 'cjs',
      strict: true,
      entryFileNames: '[name].cjs',
      chunkFileNames: '[name]-[hash].cjs',
      keepNames: true,
      cleanDir: true,
    },
    logLevel: 'warn',
  });
}
