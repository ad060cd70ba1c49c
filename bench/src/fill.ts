import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { fillCases, peakMb } from './fill-cases.js';
import { option } from './option.js';

/** What a case does not measure is told as null, so that every line has the same names. */
const unasked = {
  case: '',
  copiesPerSecond: null,
  libraryOrdinary: null,
  libraryTuned: null,
  writeOnly: null,
  ratioToTuned: null,
  shareOfWriteOnly: null,
};

/** Runs the cases one after the other, each in a process of its own; `--only NAME` runs one. */
export async function fillBench(): Promise<void> {
  const inside = option('inside', '');
  if (inside) {
    for (const result of [await fillCases[inside]!()].flat()) console.log(JSON.stringify({ ...unasked, ...result, peakMb: peakMb() }));
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
