import type { Page } from 'playwright-core';

/** Characters of what the page showed when a step failed. */
const MOST_SHOWN = 1500;

/** Says what the page showed when something failed on it. E2E_PICTURE names a file for its picture. */
async function told(page: Page, error: unknown): Promise<never> {
  if (process.env.E2E_PICTURE) await page.screenshot({ path: process.env.E2E_PICTURE });
  const shown = await page
    .locator('body')
    .innerText({ timeout: 5000 })
    .catch(() => 'nothing');
  const why = error instanceof Error ? (error.stack ?? error.message) : String(error);
  throw new Error(`${why}\nThe page at ${page.url()} showed: ${shown.split(/\s+/).join(' ').slice(0, MOST_SHOWN)}`, { cause: error });
}

type Open = () => { page: Page; faults: readonly string[] };
/** @param within milliseconds in which it must be done, where that is more than is usual */
type Step = (name: string, work: () => Promise<void>, within?: number) => void;

/**
 * Visits that stand for themselves, each a test that can be run alone: none hides another.
 * @param begin what each begins with: a world of its own, and the place where it is seen; left out: each visit goes there itself
 */
export function visitsOn(open: Open, begin: () => Promise<unknown> = () => Promise.resolve()): Step {
  return (name, work, within) =>
    test(
      name,
      async () => {
        const { page, faults } = open();
        const before = faults.length;
        const visit = async (): Promise<void> => {
          await begin();
          await work();
        };
        await visit().catch((error: unknown) => told(page, error));
        expect(faults.slice(before)).toEqual([]);
      },
      within,
    );
}

/** Steps of one story, each a test. After a failed one the others would only wait in vain. */
export function storyOn(open: Open): Step {
  let failed = false;
  return (name, work) =>
    test(name, async () => {
      if (failed) throw new Error('An earlier step failed.');
      failed = true;
      const { page, faults } = open();
      await work().catch((error: unknown) => told(page, error));
      expect(faults).toEqual([]);
      failed = false;
    });
}
