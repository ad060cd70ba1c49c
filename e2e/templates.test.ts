import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Locator, Page } from 'playwright-core';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, sheetRow, signInTo } from './browser.js';
import { membershipForm, paperForm } from './membership-form.js';
import { storyOn } from './steps.js';

let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-templates-'));

beforeAll(async () => {
  writeFileSync(join(folder, 'membership.pdf'), await membershipForm());
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

const step = storyOn(() => ({ page, faults }));
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name });
const region = (name: string): Locator => page.getByRole('region', { name, exact: true });
const chooseFile = async (name: string, file: string): Promise<void> => {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button(name).click()]);
  await chooser.setFiles(join(folder, file));
};

step('a form that is filled by hand becomes a template: its blanks are found, and each is a field with its words', async () => {
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

step('a mailing is mapped for the first edition of a form', async () => {
  await page.getByRole('link', { name: 'Templates', exact: true }).first().click();
  await chooseFile('Upload a template', 'membership.pdf');
  await page.getByRole('heading', { name: 'membership', exact: true }).waitFor();
  await page.getByRole('link', { name: 'Mailings' }).click();
  await page.getByLabel('Name of the new mailing').fill('Members 2028');
  await button('Begin a mailing').click();
  await button('Add membership').click();
  await button('Remove membership from the packet').waitFor();
  const { client } = mailbag;
  const [mailing] = await client.get<{ id: number }[]>('/api/mailings');
  const { version, plan, templates } = await client.get<{ version: number; plan: Record<string, unknown>; templates: { id: number }[] }>(
    `/api/mailings/${mailing!.id}`,
  );
  const rule = { kind: 'text', text: 'Ayumi' };
  await client.send('PUT', `/api/mailings/${mailing!.id}`, {
    version,
    plan: { ...plan, maps: { [templates[0]!.id]: { member_name: rule, voice: rule } } },
  });
});

step('a new edition is compared with it on one screen: what is gone, what is new, what was only renamed', async () => {
  await page.getByRole('link', { name: 'Templates', exact: true }).first().click();
  await page.getByRole('link', { name: 'membership' }).click();
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

step('the mailing is taken over with its map, what has no field any more is named, and it is taken back', async () => {
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
  await mailings.getByRole('link', { name: 'Members 2028' }).click();
  await sheetRow(page, 'Date of birth').waitFor();
  await page.goBack();
  await page.getByText('No mailing fills it any more.').waitFor();
});

step('an earlier edition is gone back to, and becomes the latest', async () => {
  await page.locator('svg[data-lines]').waitFor({ state: 'attached' });
  expect(Number(await page.locator('svg[data-lines]').getAttribute('data-lines'))).toBeGreaterThan(1);
  await button('Go back', region('All revisions')).click();
  await button('Go back to it').click();
  await region('Revision 3').waitFor();
});

step('boxes that are one answer are joined by hand, filled by one rule, and taken apart by keys', async () => {
  await page.getByRole('link', { name: 'Fields', exact: true }).click();
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

step('a template is put away, is out of the list, and comes back', async () => {
  await page.getByRole('link', { name: 'Templates', exact: true }).first().click();
  const paper = page.getByRole('link', { name: 'paper', exact: true });
  await button('Archive “paper”').click();
  await paper.waitFor({ state: 'detached' });
  await button(/^Archived 1/).click();
  await paper.waitFor();
  await button('Restore “paper”').click();
  await paper.waitFor({ state: 'visible' });
  await page.getByRole('textbox', { name: 'Search the templates' }).fill('member');
  await paper.waitFor({ state: 'detached' });
  await page.getByRole('link', { name: 'membership', exact: true }).waitFor();
});
