import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Locator, Page } from 'playwright-core';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, sheetRow, signInTo } from './browser.js';
import { membershipForm, paperForm } from './membership-form.js';
import { visitsOn } from './steps.js';

let browser: Browser;
let page: Page;
let faults: string[];
/** The template of a visit, and what it is called. */
let template: number;
let called: string;
let visits = 0;
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-templates-'));

beforeAll(async () => {
  writeFileSync(join(folder, 'membership-2028.pdf'), await membershipForm('ed2028_'));
  writeFileSync(join(folder, 'paper.pdf'), await paperForm());
  await mailbag.start();
  await mailbag.setUp();
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Templates');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Each visit has a template of its own, and begins at it. */
async function begin(): Promise<void> {
  called = `membership ${++visits}`;
  const made = await mailbag.client.upload<{ template: { id: number } }>(
    '/api/templates',
    `${called}.pdf`,
    await membershipForm('', called),
  );
  template = made.template.id;
  await page.goto(`${mailbag.address}/templates/${template}`);
  await page.getByRole('heading', { name: called, exact: true }).waitFor();
}
const visit = visitsOn(() => ({ page, faults }), begin);
/** A mailing over it that fills two of its fields. */
async function mapped(): Promise<void> {
  const { client } = mailbag;
  const { id, version } = await client.send<{ id: number; version: number }>('POST', '/api/mailings', { name: `Members ${visits}` });
  const { plan } = await client.get<{ plan: object }>(`/api/mailings/${id}`);
  const rule = { kind: 'text', text: 'Ayumi' };
  const maps = { [template]: { member_name: rule, voice: rule } };
  await client.send('PUT', `/api/mailings/${id}`, { version, plan: { ...plan, packet: [template], maps } });
}
/** Its next edition, in which one field is gone and one is new. */
async function renewed(): Promise<void> {
  await mailbag.client.upload(`/api/templates/${template}/revisions`, 'membership-2028.pdf', await membershipForm('ed2028_', called));
  await page.goto(`${mailbag.address}/templates/${template}/revisions`);
}
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name });
const region = (name: string): Locator => page.getByRole('region', { name, exact: true });
const chooseFile = async (name: string, file: string): Promise<void> => {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button(name).click()]);
  await chooser.setFiles(join(folder, file));
};

visit('a form that is filled by hand becomes a template: its blanks are found, and each is a field with its words', async () => {
  await page.getByRole('link', { name: 'Templates', exact: true }).first().click();
  await chooseFile('Upload a template', 'paper.pdf');
  await page.getByText('paper.pdf has no form fields').waitFor();
  await button('Make fields of its blanks').click();
  await page.getByRole('heading', { name: 'paper', exact: true }).waitFor();
  const fields = region('Fields');
  for (const [words, kind] of [
    ['Name', 'text'],
    ['Telephone', 'text'],
    ['I pay by debit', 'tick box'],
    ['Signature', 'signature'],
  ])
    // prettier-ignore
    await button(new RegExp(`^${words} ?${kind}`), fields).waitFor();
});

visit('a new edition is compared with it on one screen: what is gone, what is new, what was only renamed', async () => {
  await page.getByRole('link', { name: 'Revisions' }).first().click();
  await page.getByText('There is one edition of this form so far').waitFor();
  await chooseFile('Choose the new edition', 'membership-2028.pdf');
  const changes = region('Gone and new');
  await changes.getByText('Gone (1) and new (1)').waitFor();
  await changes.getByText('Voice', { exact: true }).waitFor();
  await changes.getByText('Date of birth', { exact: true }).waitFor();
  await region('Renamed').getByText('Only renamed, or on another page (4)').waitFor();
  await region('Print').getByText('Date of birth', { exact: true }).waitFor();
  // Both editions lie side by side, and what is chosen in the list is marked on both.
  await button(/^Member number/, region('Renamed')).click();
  for (const [side, field] of [
    ['Revision 1', 'member_no'],
    ['Revision 2', 'ed2028_member_no'],
  ])
    // prettier-ignore
    await region(side!).locator(`[data-field="${field}"][data-chosen]`).waitFor();
});

visit('the mailing is taken over with its map, what has no field any more is named, and it is taken back', async () => {
  await mapped();
  await renewed();
  const mailings = region('Mailings');
  await mailings.getByText('1 of 2 rules go along; 1 has no field any more.').waitFor();
  await button('Take over', mailings).click();
  await mailings
    .getByText('It fills revision 2 now: 1 rule went along. Without a field: Voice. 4 fields of the new edition have no rule yet.')
    .waitFor();
  await button('Undo', mailings).click();
  await mailings.getByText('1 of 2 rules go along; 1 has no field any more.').waitFor();
  await button('Take over', mailings).click();
  await button('Undo', mailings).waitFor();
  await mailings.getByRole('link', { name: `Members ${visits}` }).click();
  await sheetRow(page, 'Date of birth').waitFor();
  await page.goBack();
  await page.getByText('No mailing fills it any more.').waitFor();
});

visit('an earlier edition is gone back to, and becomes the latest', async () => {
  await renewed();
  await page.locator('svg[data-lines]').waitFor({ state: 'attached' });
  expect(Number(await page.locator('svg[data-lines]').getAttribute('data-lines'))).toBeGreaterThan(1);
  await button('Go back', region('All revisions')).click();
  await button('Go back to it').click();
  await region('Revision 3').waitFor();
});

visit('boxes that are one answer are joined by hand, filled by one rule, and taken apart by keys', async () => {
  const fields = region('Fields');
  await button('Join', fields).click();
  await fields.getByRole('checkbox', { name: /^Join Name, member_name/ }).check();
  await fields.getByRole('checkbox', { name: /^Join Member number/ }).check();
  await fields.getByRole('button', { name: /Join 2 fields as/ }).click();
  await page.getByRole('option', { name: 'One number or word, its characters in turn' }).click();
  const row = button(/^Name required ?2 boxes/, fields);
  await row.waitFor();
  await row.focus();
  await page.keyboard.press('Enter');
  await fields.getByText('Joined by hand.').waitFor();
  await fields.getByText('characters 1-1').waitFor();
  await button('Split up', fields).focus();
  await page.keyboard.press('Enter');
  await row.waitFor({ state: 'detached' });
});

visit('a template is put away, is out of the list, and comes back', async () => {
  await page.getByRole('link', { name: 'Templates', exact: true }).first().click();
  const own = page.getByRole('link', { name: called, exact: true });
  await button(`Archive “${called}”`).click();
  await own.waitFor({ state: 'detached' });
  await button(/^Archived 1/).click();
  await own.waitFor();
  await button(`Restore “${called}”`).click();
  await own.waitFor({ state: 'visible' });
  await page.getByRole('textbox', { name: 'Search the templates' }).fill('nothing is called so');
  await own.waitFor({ state: 'detached' });
  await page.getByRole('textbox', { name: 'Search the templates' }).fill(called);
  await own.waitFor();
});
