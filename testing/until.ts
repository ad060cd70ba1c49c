import { PATIENCE } from './patience.js';

/** Waits until something is so. @param what it is, for whoever reads that it never was @param most milliseconds */
export async function until(isSo: () => boolean | Promise<boolean>, what: string, most = PATIENCE): Promise<void> {
  for (const end = Date.now() + most; !(await isSo());) {
    if (Date.now() > end) throw new Error(`After ${most / 1000} s it was not so that ${what}.`);
    await new Promise((over) => setTimeout(over, 50));
  }
}
