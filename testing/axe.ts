import { source } from 'axe-core';
import type { Page } from 'playwright-core';

/** What axe finds against WCAG 2.2, levels A and AA, on a page as it stands: each violation with the first element that has it. Empty: nothing. */
export async function violationsOn(page: Page): Promise<string[]> {
  // Reading it takes longer than most screens take to be gone through.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(source);
  return page.evaluate(async () => {
    const { axe } = window as unknown as { axe: typeof import('axe-core') };
    const { violations } = await axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
      resultTypes: ['violations'],
    });
    return violations.map(({ id, help, nodes }) => `${id}: ${help} (${nodes[0]?.html.slice(0, 200) ?? ''})`);
  });
}
