import { chromium } from 'playwright-core';
import type { Browser, Locator, Page } from 'playwright-core';
import { PATIENCE } from '../testing/patience.js';

/** Debian's Chromium with an empty profile and nothing that reaches outside. */
export const openBrowser = (): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });

/** A page that fails the test when the application throws. @param locale the language that the browser asks for (BCP 47) */
export async function openPage(browser: Browser, locale = 'en-GB'): Promise<{ page: Page; faults: string[] }> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale, acceptDownloads: true });
  page.setDefaultTimeout(PATIENCE);
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  return { page, faults };
}

/** Milliseconds between two looks. Locators look every half second after a while, which adds up over many screens. */
const LOOK = 40;

/** Waits until something is seen, with a look every few milliseconds at first. */
export async function seen(wanted: Locator): Promise<void> {
  for (let looks = 0; looks < 5000 / LOOK && !(await wanted.isVisible()); looks++) await new Promise((done) => setTimeout(done, LOOK));
  await wanted.waitFor();
}

/** How often the first page beside the fill sheet has been drawn. */
export const timesDrawn = async (page: Page): Promise<number> =>
  Number(await page.locator('canvas[data-drawn]').first().getAttribute('data-drawn'));

/** Waits until the page has been drawn again after `before`. */
export const drawnAgain = (page: Page, before: number): Promise<unknown> =>
  page.waitForFunction((last) => Number(document.querySelector('canvas[data-drawn]')?.getAttribute('data-drawn')) > last, before);

/** Signs in on the first screen, as a person does, and goes to a place of the rail. */
export async function signInTo(
  page: Page,
  address: string,
  { email, password }: { email: string; password: string },
  place: string,
): Promise<void> {
  await page.goto(address);
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: place, exact: true }).first().click();
}

/** The row of an answer in the fill sheet, which is called by its words, rule, value and mark. @param label its words, whole where they are no pattern */
export const sheetRow = (page: Page, label: string | RegExp): Locator =>
  page
    .getByRole('treegrid', { name: 'Answers of the packet' })
    .getByRole('row', { name: typeof label === 'string' ? new RegExp(`^${label.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}( |$)`) : label })
    .first();
