import type { Browser, Page } from 'playwright-core';
import { violationsOn } from '../testing/axe.js';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { storyOn } from './steps.js';

/** A new office that has nothing at hand comes from an empty Desk to a filled page. */
let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag();
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
});
const step = storyOn(() => ({ page, faults }), 'a new office with nothing at hand comes to a filled page');

step('an empty Mailbag can be read by everybody', async () => {
  await page.goto(mailbag.address);
  await page.getByLabel('E-mail').waitFor();
  expect(await violationsOn(page)).toEqual([]);
  await signInTo(page, mailbag.address, person, 'Mailings');
  for (const place of ['Desk', 'Mailings', 'Templates', 'Sources', 'Intakes', 'Ledger', 'Paper', 'Settings']) {
    await page
      .getByRole('link', { name: new RegExp(`^${place}`) })
      .first()
      .click();
    // Whoever goes to another screen reads on from its heading.
    await page.waitForFunction(() => document.activeElement?.tagName === 'H1');
    expect([place, await violationsOn(page)]).toEqual([place, []]);
  }
});

step('an empty Desk says what comes first, and a sample shows how it goes', async () => {
  await page.getByRole('link', { name: /^Desk/ }).first().click();
  await page.getByRole('heading', { name: 'First steps' }).waitFor();
  expect(await violationsOn(page)).toEqual([]);
  await page.getByRole('button', { name: 'Try it with a sample' }).click();
  const sheet = page.getByRole('treegrid', { name: 'Answers of the packet' });
  await sheet.getByRole('row', { name: /^Plot number/ }).waitFor();
  await page.locator('canvas[data-drawn]').first().waitFor();
  await page.getByRole('heading', { name: 'Sample: shed permits' }).waitFor();
});

step('what the sample’s columns say is taken over at once, and its records can run', async () => {
  await page.getByRole('button', { name: /^Accept .*sure/ }).click();
  const sheet = page.getByRole('treegrid', { name: 'Answers of the packet' });
  await sheet.getByRole('row', { name: /^Plot number.*A-01/ }).waitFor();
  await sheet.getByRole('row', { name: /^Site.*Reed Lane/ }).waitFor();
});

step('the steps that are done are ticked, and the Desk is an ordinary one once there is a mailing', async () => {
  await page.getByRole('link', { name: /^Desk/ }).first().click();
  await page.getByRole('heading', { name: 'Needs you' }).waitFor();
  expect(await page.getByRole('heading', { name: 'First steps' }).count()).toBe(0);
});
