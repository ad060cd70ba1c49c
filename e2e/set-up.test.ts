import type { Browser, Locator, Page } from 'playwright-core';
import { waitingList } from '../demo/src/waiting-list.js';
import { PostOffice, PrinterStandIn, RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { visitsOn } from './steps.js';

/** What is set up can be renamed and deleted, and is put back from the wastebasket as it was. */
let office: PostOffice;
let printer: PrinterStandIn;
let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag();

beforeAll(async () => {
  office = await PostOffice.open();
  printer = await PrinterStandIn.open();
  await (await mailbag.start()).setUp(office);
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Settings');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
  await printer?.close();
});

const visit = visitsOn(() => ({ page, faults }));
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name, exact: true });
const goTo = (path: string): Promise<unknown> => page.goto(mailbag.address + path);
/** Answers the question that a deletion asks. */
const agree = (): Promise<void> => button('Delete', page.getByRole('alertdialog')).click();
const isAway = (name: string): Promise<void> => page.getByText(`“${name}” is in the wastebasket.`).waitFor();

visit('a sender and its server are deleted, and one press brings both back', async () => {
  await goTo('/settings/mail');
  const senders = page.getByRole('region', { name: 'Senders', exact: true });
  await button('Delete', senders).click();
  await agree();
  await isAway('office@larkmere.example');
  await page.getByText('No sender yet. Add the address that recipients see.').waitFor();
  await button('Delete', page.getByRole('region', { name: 'Mail servers' })).click();
  await agree();
  await page.getByText('No mail server yet').waitFor();
  await goTo('/wastebasket');
  await page.getByRole('checkbox', { name: 'Pick office@larkmere.example' }).click();
  await button('Put back').click();
  await page.getByText('The wastebasket is empty').waitFor();
  await goTo('/settings/mail');
  await senders.getByText('confirmed', { exact: true }).waitFor();
});

visit('a printer is renamed, deleted and put back where it was deleted', async () => {
  await mailbag.client.send('POST', '/api/printers', { name: 'Cellar', uri: printer.uri });
  await goTo('/settings/paper');
  await button('Change').click();
  await page.getByRole('heading', { name: 'Change Cellar' }).waitFor();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Attic');
  await button('Save').last().click();
  await page.getByText('Attic', { exact: true }).waitFor();
  await button('Delete').click();
  await agree();
  await isAway('Attic');
  await page.getByText('No printer yet.', { exact: false }).waitFor();
  await button('Put back').click();
  await button('Change').waitFor();
  expect(await mailbag.client.get('/api/printers')).toMatchObject([{ name: 'Attic', uri: printer.uri }]);
});

visit('a database gets another name, and is deleted and put back while no source reads it', async () => {
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/connections/files', 'waiting.sqlite', waitingList());
  await mailbag.client.send('POST', '/api/connections', {
    ...{ name: 'Waiting list', kind: 'sqlite', host: '', port: 0, databaseName: 'waiting.sqlite', user: '', password: '', tls: false },
    fileId,
  });
  await goTo('/sources');
  await button('A database').click();
  await page.getByRole('treeitem').first().waitFor();
  await button('Change').click();
  await page.getByRole('textbox', { name: 'Name of the connection' }).fill('Applicants');
  await button('Save the connection').click();
  await page.getByRole('treeitem').first().waitFor();
  expect(await mailbag.client.get('/api/connections')).toMatchObject([{ name: 'Applicants' }]);
  await button('Delete').click();
  await agree();
  await isAway('Applicants');
  await button('Put back').click();
  await page.getByRole('treeitem').first().waitFor();
});

visit('a saved view gets another name, goes and comes back', async () => {
  await mailbag.client.send('POST', '/api/copies/views', { name: 'Late', filter: 'state=bounced' });
  await goTo('/ledger?state=bounced');
  const views = page.getByRole('group', { name: 'Saved views' });
  await button('Rename', views).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Came back');
  await button('Rename', page.getByRole('dialog')).click();
  await button('Came back', views).waitFor();
  await button('Delete the view Came back', views).click();
  await isAway('Came back');
  await button('Put back').click();
  await button('Came back', views).waitFor();
});
