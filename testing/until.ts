import { PATIENCE } from './patience.js';

/** Waits until something is so. @param what it is, for whoever reads that it never was @param limit milliseconds */
export async function until(isSo: () => boolean | Promise<boolean>, what: string, limit = PATIENCE): Promise<void> {
  for (const end = Date.now() + limit; !(await isSo());) {
    if (Date.now() > end) throw new Error(`After ${limit / 1000} s it was not so that ${what}.`);
    await new Promise((over) => setTimeout(over, 50));
  }
}
