import type { Browser, Locator, Page } from 'playwright-core';
import { demoSignIn } from '../demo/src/office.js';
import { makeWorld } from '../demo/src/world.js';
import { readByOther } from '../testing/other-reader.js';
import { PostOffice, PrinterStandIn, RunningMailbag, standInPorts } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { visitsOn } from './steps.js';

let office: PostOffice;
let printer: PrinterStandIn;
let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag({ MAILBAG_MAILBOX_SECONDS: '1', MAILBAG_PRINTER_SECONDS: '0.3' });

beforeAll(async () => {
  office = await PostOffice.open();
  printer = await PrinterStandIn.open();
  await mailbag.start();
  await makeWorld(mailbag.address, standInPorts(office, printer));
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, demoSignIn, 'Ledger');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
  await printer?.close();
});

/** Each begins at the desk. */
const visit = visitsOn(
  () => ({ page, faults }),
  () => page.goto(mailbag.address),
);
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name });
const place = (name: string, on: Page = page): Promise<void> =>
  on
    .getByRole('navigation', { name: 'Main' })
    .getByRole('link', { name: new RegExp(`^${name}`) })
    .click();
visit('“did mine arrive?” is answered from Find: a late bounce, with the words of their server', async () => {
  await page.getByText('copies bounced').waitFor();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('gone');
  await page
    .getByRole('option', { name: /bounced/ })
    .first()
    .click();
  const side = page.getByRole('complementary', { name: 'Copy' });
  await side.getByText('trouble: address (5.1.1, there is no such mailbox)').waitFor();
  await side.getByText('Bounced by Incoming mail').waitFor();
  await side.getByText('The message', { exact: true }).click();
  await side.getByText(/your permit for plot .* is attached/).waitFor();
  await side.getByText(/^The record as it was/).click();
  await side.getByText('Postal code').waitFor();
});

visit('a view is kept, all copies of it go to paper with a count, and back again', async () => {
  await page.goto(`${mailbag.address}/ledger?state=bounced`);
  await button('Save this view').click();
  await page.getByLabel('Name of the view').fill('All that bounced');
  await button('Save', page.getByRole('group', { name: 'Saved views' })).click();
  await button(/^All that bounced/).waitFor();
  await button('2 copies to paper').click();
  await page.getByText('2 copies wait for a print run.').waitFor();
  await button(/^Undo$/).click();
  await page.getByText('2 copies taken out again.').waitFor();
  await place('Ledger');
  await button(/^All that bounced/).click();
  await page.getByText('2 match the filters').waitFor();
  await page.getByRole('group', { name: 'With all of these' }).getByRole('link', { name: 'XLSX' }).waitFor();
});

visit('who asks for paper is printed: the printer runs out of paper, says so, and goes on', async () => {
  await place('Paper');
  await page.getByRole('heading', { name: /Permits by post/ }).waitFor();
  await page.getByRole('img', { name: 'Page 1 of the print run' }).waitFor();
  await printer.behave('paper-out');
  await button(/^Print \d+ sheets/).click();
  await page.getByText(/Ground floor:.*it is out of paper/).waitFor();
  await printer.behave('well');
  await page.getByText('printed', { exact: true }).first().waitFor();
  const [job] = await printer.jobs();
  expect(job).toMatchObject({ state: 'completed', sides: 'two-sided-long-edge' });
  // Another reader finds the address in the window of the envelope: DIN 5008, form B, text from 25 mm on, 62.7 to 90 mm from the top.
  const [sheet] = await readByOther(await printer.file(job!.id));
  const mm = 72 / 25.4;
  const lines = sheet!.pieces.slice(1);
  expect(lines.length).toBeGreaterThanOrEqual(3);
  for (const { x, y } of lines) {
    expect(x).toBeGreaterThanOrEqual(25 * mm - 1);
    expect(x).toBeLessThan(45 * mm);
    expect(297 * mm - y).toBeGreaterThan(62.7 * mm);
    expect(297 * mm - y).toBeLessThan(90 * mm);
  }
  await page.goto(`${mailbag.address}/ledger?state=printed`);
  await page
    .getByRole('row', { name: /printed/ })
    .first()
    .click();
  await page.getByRole('complementary', { name: 'Copy' }).getByText('Printed by Printer').waitFor();
});

visit('recipients whose copies are out are reminded once', async () => {
  await place('Mailings');
  await page
    .getByRole('link', { name: /early birds/ })
    .first()
    .click();
  await page
    .getByRole('navigation', { name: 'Parts of the mailing' })
    .getByRole('link', { name: /^Output/ })
    .click();
  await button('Reminders').click();
  await button(/^Remind all \d+/).click();
  const ask = page.getByRole('alertdialog');
  await button(/^Remind \d+/, ask).click();
  await page.getByText(/reminders are on the way/).waitFor();
  const reminded = /^(\d+)/.exec(await page.getByText(/reminders are on the way/).innerText())![1]!;
  await page.getByText(`${reminded} reminded`).waitFor();
});

visit('what Mailbag does by itself stands in Settings, Jobs, and can be had at once', async () => {
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('navigation', { name: 'Settings' }).getByRole('link', { name: 'Jobs' }).click();
  await page.getByRole('region', { name: 'Running now' }).getByText('Sending mail').waitFor();
  const waiting = page.getByRole('region', { name: 'Waiting for their time' });
  await waiting.getByText('Reading the bounce mailbox').waitFor();
  // It has not run yet, since its time is in some hours.
  const lastRuns = waiting.getByText(/last run/);
  const before = await lastRuns.count();
  await button('Run now: Deleting data past its retention', waiting).click();
  await page.waitForFunction(
    (count) =>
      [...document.querySelectorAll('[aria-label="Waiting for their time"] small, [aria-label="Waiting for their time"] span')].filter(
        (one) => one.textContent?.includes('last run'),
      ).length > count,
    before,
  );
});

visit('a viewer is invited, chooses a password, sees copies but no values, and changes nothing', async () => {
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('link', { name: 'People' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Vera Lund');
  await page.getByLabel('E-mail address', { exact: true }).fill('vera@larkmere.example');
  await button(/Role/, page.locator('form')).click();
  await page.getByRole('option', { name: /viewer/ }).click();
  await page.locator('form').getByText('Sees values of records').click();
  await button('Invite').click();
  await page.getByText('The invitation has been sent.').waitFor();
  const message = (await office.received()).filter(({ to }) => to === 'vera@larkmere.example').at(-1)!;
  const address = /http:\/\/\S+token=[\w-]+/.exec((await office.raw(message.id)).replace(/=\r\n/g, '').replace(/=3D/g, '='))![0];
  const theirs = await openPage(browser);
  await theirs.page.goto(address);
  await theirs.page.getByRole('heading', { name: 'Welcome, Vera Lund' }).waitFor();
  await theirs.page.getByLabel('Choose a password').fill('a sentence to remember');
  await button('Accept the invitation', theirs.page).click();
  await theirs.page.getByRole('heading', { name: 'Needs you' }).waitFor();
  await theirs.page.goto(`${mailbag.address}/ledger?state=sent`);
  await theirs.page.getByRole('row', { name: /sent/ }).first().click();
  const side = theirs.page.getByRole('complementary', { name: 'Copy' });
  await side.getByText(/^The record as it was/).click();
  await side.getByText('Your account does not show values of records.').waitFor();
  await theirs.page.getByTitle('Your account can look at this but not change it.').first().waitFor();
  expect(await button(/^Withdraw \d+ copies/, theirs.page).isDisabled()).toBe(true);
  await place('Mailings', theirs.page);
  await theirs.page
    .getByRole('link', { name: /early birds/ })
    .first()
    .click();
  await theirs.page.getByText('Your account can look at this but not change it.').waitFor();
  expect(await button('Start a batch', theirs.page).isDisabled()).toBe(true);
  expect(theirs.faults).toEqual([]);
});
