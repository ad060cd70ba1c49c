import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Locator, Page } from 'playwright-core';
import { tenancies } from '../demo/src/tenancies.js';
import { tenancyWorkbook } from '../demo/src/workbooks.js';
import { demoSignIn } from '../demo/src/office.js';
import { makeWorld } from '../demo/src/world.js';
import { PostOffice, PrinterStandIn, RunningMailbag, standInPorts } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { visitsOn } from './steps.js';

let office: PostOffice;
let printer: PrinterStandIn;
let browser: Browser;
let page: Page;
let faults: string[];
/** The renewals of the world, and how their workbook is read. */
let renewals: number;
let reading: object;
let workbook: Uint8Array;
/** Those of a visit. */
let mailing: number;
let source: number;
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-records-'));

beforeAll(async () => {
  office = await PostOffice.open();
  await mailbag.start();
  printer = await PrinterStandIn.open();
  await makeWorld(mailbag.address, standInPorts(office, printer));
  // The workbook comes again later: one plot has another tenant, one postal code was mended in the sheet, one plot is new.
  const rows = tenancies();
  rows[2]!.surname = 'Newcomer';
  rows.push({ ...rows[0]!, plot: 'E-01', email: 'e01@example.org', iban: '', born: '' });
  writeFileSync(join(folder, 'tenancies.xlsx'), await tenancyWorkbook(rows));
  writeFileSync(
    join(folder, 'offices.csv'),
    Buffer.from('B\xfcro;PLZ;Er\xf6ffnet\nK\xf6ln;01067;3/4/2027\nM\xfcnchen;80331;25/12/2027\n', 'latin1'),
  );
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, demoSignIn, 'Mailings');
  await mailbag.client.send('POST', '/api/account/sign-in', { email: demoSignIn.email, password: demoSignIn.password });
  const mailings = await mailbag.client.get<{ id: number; name: string }[]>('/api/mailings');
  renewals = mailings.find(({ name }) => name === 'Plot renewals 2027')!.id;
  const { plan } = await mailbag.client.get<{ plan: { sourceId: number } }>(`/api/mailings/${renewals}`);
  ({ reading } = await mailbag.client.get<{ reading: object }>(`/api/sources/${plan.sourceId}`));
  workbook = await tenancyWorkbook(tenancies());
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
  await printer?.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Each visit has the workbook and the renewals for itself, and begins at their checks. */
async function begin(): Promise<void> {
  const { client } = mailbag;
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'tenancies.xlsx', workbook);
  ({ id: source } = await client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: 'tenancies.xlsx', reading }));
  await client.until<{ state: string }>(`/api/sources/${source}`, ({ state }) => state === 'ready');
  ({ id: mailing } = await client.send<{ id: number }>('POST', '/api/mailings', { name: 'Renewals once more', from: renewals }));
  const { version, plan } = await client.get<{ version: number; plan: object }>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, sourceId: source } });
  await client.until<{ current: boolean }>(`/api/mailings/${mailing}/checks`, ({ current }) => current);
  await page.goto(`${mailbag.address}/mailings/${mailing}/checks`);
  await kinds().getByText('Leading zero lost').waitFor();
}
const visit = visitsOn(() => ({ page, faults }), begin);
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name });
const kinds = (): Locator => page.getByRole('region', { name: 'Kinds of findings' });
const concerned = (): Locator => page.getByRole('region', { name: 'Records concerned' });
const chooseFile = async (name: string, file: string): Promise<void> => {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button(name).click()]);
  await chooser.setFiles(join(folder, file));
};

visit('the checks of the Larkmere workbook find every fault that is in it, and nothing else', async () => {
  const found = (await kinds().locator('button[aria-pressed]').allInnerTexts()).map((text) => text.replace(/\s+/g, ' ').trim());
  expect(found.filter((text) => / (stop|look) /.test(text)).sort()).toEqual(
    [
      'Not an e-mail address stop 4',
      'Value without a translation stop 2',
      'Rule that cannot be calculated stop 1',
      'Duplicate record key stop 2',
      'Not a date stop 1',
      'Leading zero lost look 9',
      'Stray space look 1',
      'Does not fit its box look 1',
      'No e-mail address look 1',
    ].sort(),
  );
});

visit('a value that does not fit says what cannot be seen, and is mended on the spot', async () => {
  await kinds().getByText('Does not fit its box').click();
  await concerned()
    .getByText(/of its 103 characters the last 24 cannot be seen, “Vorderen Windmühlenwiese”/)
    .waitFor();
  await button(/^Wrap, /).click();
  await kinds().getByText('Does not fit its box').waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await kinds().getByText('Does not fit its box').click();
  await page.getByLabel('Search the findings').fill('nobody of that name');
  await page.getByText('No record with such a finding matches.').waitFor();
  await page.getByLabel('Search the findings').fill('ayumi');
  await concerned().getByRole('row', { name: /A-17/ }).waitFor();
  await page.getByLabel('Search the findings').fill('');
});

visit('all leading zeros are mended at once, and taken back at once', async () => {
  await button(/Leading zero lost/, kinds()).click();
  await button('Fix all 9', concerned()).click();
  await concerned().getByText('9 values fixed.').waitFor();
  await concerned().getByText('Nothing of this kind is left.').waitFor();
  await button('Undo', concerned()).click();
  await button('Fix all 9', concerned()).click();
  await concerned().getByText('9 values fixed.').waitFor();
});

visit('a wrong date is changed in place by keyboard, and its stop goes', async () => {
  await button(/Not a date/, kinds()).click();
  const cell = button(/Start, row 92: 31\.02\.2027/, concerned());
  await cell.focus();
  await page.keyboard.press('Enter');
  const line = concerned().getByRole('textbox', { name: 'Start, row 92' });
  await line.fill('01.02.2027');
  await page.keyboard.press('Enter');
  await concerned().getByText('Nothing of this kind is left.').waitFor();
});

visit('a look is accepted with a reason and stands among those accepted', async () => {
  await button(/Does not fit its box/, kinds()).click();
  await button('Accept row 20', concerned()).click();
  await concerned().getByRole('textbox', { name: 'Why this is right' }).fill('The office prints a second line by hand.');
  await button('Accept', concerned()).click();
  await button(/Accepted looks/, kinds()).click();
  await concerned().getByText('The office prints a second line by hand.').waitFor();
});

visit('a limit that a person sets is checked at once', async () => {
  await button('What is checked', kinds()).click();
  const settings = page.getByRole('region', { name: 'What is checked' });
  await settings.getByRole('button', { name: /Column/ }).click();
  await page.getByRole('option', { name: /Area m²/ }).click();
  await settings.getByRole('textbox', { name: 'Maximum' }).fill('300');
  await kinds().getByText('Outside its limits').waitFor();
  await settings.getByRole('textbox', { name: 'Maximum' }).fill('');
  await kinds().getByText('Outside its limits').waitFor({ state: 'detached' });
});

visit('the workbook comes again: what changed is shown, and the corrections are made again', async () => {
  await mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row: 30, column: 'Site', value: 'Weir' });
  await page.goto(`${mailbag.address}/sources/${source}`);
  await chooseFile('Upload again', 'tenancies.xlsx');
  await page.getByText('1 correction applied again.').waitFor();
  await button('1 record changed').click();
  await page.getByRole('cell', { name: 'Newcomer' }).waitFor();
  await button('1 new record').click();
  await page.getByText('e-01').waitFor();
});

visit('a value is changed in the grid by typing, its corner folded, and undone in the list of corrections', async () => {
  await page.goto(`${mailbag.address}/sources/${source}`);
  const grid = page.getByRole('grid', { name: 'Records' });
  await grid.getByRole('gridcell', { name: 'Mill Lane' }).first().click();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.type('Weir Lane');
  await page.keyboard.press('Enter');
  await page.getByText('“Site” of row 5 changed.').waitFor();
  await grid.locator('[data-corrected]', { hasText: 'Weir Lane' }).waitFor();
  await button('Corrections, 1').click();
  await button('Undo Site of row 5').click();
  await button('Corrections, 0').waitFor();
});

visit('the import report says what is to be known and can be saved as a sheet', async () => {
  await page.goto(`${mailbag.address}/sources/${source}`);
  await button(/Import report/).click();
  await page.getByText('480 records').first().waitFor();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save the report as a sheet' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Import report tenancies.xlsx.xlsx');
});

visit(
  'a CSV file shows its encoding and delimiter, redrawn as they are changed, and its dates are read as they can only be meant',
  async () => {
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Sources' }).click();
    await chooseFile('Choose a sheet', 'offices.csv');
    const rows = page.getByRole('table', { name: 'First rows' });
    await rows.getByRole('cell', { name: 'München' }).waitFor();
    await button(/Encoding/).click();
    await page.getByRole('option', { name: 'windows-1251' }).click();
    await rows.getByRole('cell', { name: 'Mьnchen' }).waitFor();
    await button(/Encoding/).click();
    await page.getByRole('option', { name: 'windows-1252' }).click();
    await rows.getByRole('cell', { name: 'München' }).waitFor();
    await button('Read the records').click();
    await button(/^PLZ .*: how it is read$/).click();
    await page
      .getByRole('complementary', { name: 'Column PLZ' })
      .getByRole('button', { name: /Detected: postal code/ })
      .waitFor();
  },
);

visit('a database is asked: a table, a query with a parameter, and its records become a source', async () => {
  await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Sources' }).click();
  await button('A database').click();
  await page.getByRole('treeitem').getByText('applicant', { exact: true }).click();
  await page.getByText('64 records').waitFor();
  await page.getByRole('textbox', { name: 'Query' }).fill('DELETE FROM applicant');
  await button('Show the first rows').click();
  await page.getByText('The query was not run').waitFor();
  await page.getByRole('textbox', { name: 'Query' }).fill('SELECT number, name FROM applicant WHERE site = :site');
  await page.getByRole('textbox', { name: ':site' }).fill('Mill Lane');
  await button('Show the first rows').click();
  await page.getByRole('table', { name: 'First rows' }).getByText('W-004').waitFor();
  await page.getByRole('textbox', { name: 'Name of the source' }).fill('Waiting for Mill Lane');
  await button('Read the records').click();
  await page.getByRole('heading', { name: 'Waiting for Mill Lane' }).waitFor();
  await page.getByRole('grid', { name: 'Records' }).getByText('W-004').waitFor();
});
