import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { fillCases } from './fill-cases.js';
import { option } from './option.js';

/** Runs the cases one after the other, each in a process of its own; `--only NAME` runs one. */
export async function fillBench(): Promise<void> {
  const inside = option('inside', '');
  if (inside) {
    for (const result of [await fillCases[inside]!()].flat()) console.log(JSON.stringify(result));
    return;
  }
  const only = option('only', '');
  for (const name of Object.keys(fillCases).filter((one) => one.includes(only))) {
    const { status } = spawnSync(process.execPath, [fileURLToPath(new URL('./main.js', import.meta.url)), 'fill', '--inside', name], {
      stdio: 'inherit',
    });
    if (status !== 0) process.exitCode = 1;
  }
}
