import type { Page } from 'playwright-core';

/** Characters of what the page showed when a step failed. */
const MOST_SHOWN = 1500;

const whyOf = (error: unknown): string => (error instanceof Error ? (error.stack ?? error.message) : String(error));

/** Says what the page showed when something failed on it. E2E_PICTURE names a file for its picture. */
async function told(page: Page, error: unknown): Promise<never> {
  if (process.env.E2E_PICTURE) await page.screenshot({ path: process.env.E2E_PICTURE });
  const shown = await page
    .locator('body')
    .innerText({ timeout: 5000 })
    .catch(() => 'nothing');
  throw new Error(`${whyOf(error)}\nThe page at ${page.url()} showed: ${shown.split(/\s+/).join(' ').slice(0, MOST_SHOWN)}`, {
    cause: error,
  });
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

/** Milliseconds in which a story is told, far more than any takes. */
const STORY = 900_000;

/**
 * One story is one test, that stands for itself: a person goes through all of its steps, and each takes up what the one before has made.
 * What fails says at which step.
 * @param title whose story it is
 */
export function storyOn(open: Open, title: string): Step {
  const steps: [name: string, work: () => Promise<void>][] = [];
  test(
    title,
    async () => {
      for (const [name, work] of steps) {
        const { page, faults } = open();
        const failed = (error: unknown): Error => new Error(`At the step “${name}”: ${whyOf(error)}`, { cause: error });
        await work().catch((error: unknown) => told(page, failed(error)));
        expect([name, faults]).toEqual([name, []]);
      }
    },
    STORY,
  );
  return (name, work) => void steps.push([name, work]);
}
