#!/usr/bin/env node
import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const compiled = new URL('../dist/main.js', import.meta.url);
const bundle = new URL('../dist/bundle/main.js', import.meta.url);
if (!existsSync(compiled)) {
  // A fresh checkout is built once; what the compiler says does not mix with the answer.
  const root = fileURLToPath(new URL('../../../', import.meta.url));
  const { status, stdout } = spawnSync(process.execPath, ['node_modules/typescript/bin/tsc', '-b', 'apps/cli'], { cwd: root });
  if (status !== 0) {
    console.error(`Mailbag could not be built. Run "npm ci" first.\n${stdout ?? ''}`);
    process.exit(1);
  }
}
// One file starts in half the time of many.
const isBundled = existsSync(bundle) && statSync(bundle).mtimeMs >= statSync(compiled).mtimeMs;
await import((isBundled ? bundle : compiled).href);
