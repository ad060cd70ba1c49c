import type { Page } from 'playwright-core';

/** Characters of what the page showed when a step failed. */
const MOST_SHOWN = 1500;

/**
 * Steps of one story, each a test. After a failed one the others would only wait in vain. E2E_PICTURE names a file for the picture of the
 * page at which a step failed.
 */
export function storyOn(open: () => { page: Page; faults: readonly string[] }): (name: string, work: () => Promise<void>) => void {
  let failed = false;
  return (name, work) =>
    test(name, async () => {
      if (failed) throw new Error('An earlier step failed.');
      failed = true;
      const { page, faults } = open();
      await work().catch(async (error: unknown) => {
        if (process.env.E2E_PICTURE) await page.screenshot({ path: process.env.E2E_PICTURE });
        const shown = await page
          .locator('body')
          .innerText({ timeout: 5000 })
          .catch(() => 'nothing');
        const told = error instanceof Error ? (error.stack ?? error.message) : String(error);
        throw new Error(`${told}\nThe page at ${page.url()} showed: ${shown.split(/\s+/).join(' ').slice(0, MOST_SHOWN)}`, {
          cause: error,
        });
      });
      expect(faults).toEqual([]);
      failed = false;
    });
}
