#!/usr/bin/env node
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { newest } from '../../../scripts/newest.mjs';

const compiled = new URL('../dist/main.js', import.meta.url);
if (!existsSync(compiled)) {
  // A fresh checkout is built once; what the compiler says does not mix with the answer.
  const root = fileURLToPath(new URL('../../../', import.meta.url));
  const { status, stdout } = spawnSync(process.execPath, ['node_modules/typescript/bin/tsc', '-b', 'apps/cli'], { cwd: root });
  if (status !== 0) {
    console.error(`Mailbag could not be built. Run "npm ci" first.\n${stdout ?? ''}`);
    process.exit(1);
  }
}
await import(pathToFileURL(newest('cli')).href);
