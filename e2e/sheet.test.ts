import type { Browser, Locator, Page } from 'playwright-core';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { smallMailing } from '../testing/small-mailing.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { visitsOn } from './steps.js';

/** The records as a sheet: ranges, the clipboard, order and search, replacing, all of it undone in one step each. */
let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag();
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Sources');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
});
/** Each visit has a sheet of its own before it. */
const visit = visitsOn(
  () => ({ page, faults }),
  async () => {
    const rows = Array.from({ length: 30 }, (_, at): [string, string, string, string] => [
      `P-${at + 1}`,
      `Tenant ${30 - at}`,
      '',
      at % 3 ? 'no' : 'yes',
    ]);
    const { source } = await smallMailing(mailbag.client, rows, { mailed: false });
    await page.goto(`${mailbag.address}/sources/${source}`);
    await cell('P-1').waitFor();
  },
);
const grid = (): Locator => page.getByRole('grid', { name: 'Records' });
const cell = (text: string): Locator => grid().getByRole('gridcell', { name: text, exact: true });
const told = (text: string): Promise<void> => page.getByText(text).first().waitFor();
const undone = async (shown: string): Promise<void> => {
  await grid().focus();
  await page.keyboard.press('Control+z');
  await cell(shown).waitFor();
};

visit('Enter goes down and Tab to the right, so a column or a row is typed without a mouse', async () => {
  await cell('P-1').click();
  await page.keyboard.type('X-1');
  await page.keyboard.press('Enter');
  await told('“Plot” of row 2 changed.');
  await page.keyboard.type('X-2');
  await page.keyboard.press('Tab');
  await told('“Plot” of row 3 changed.');
  await page.keyboard.type('Ada Quist');
  await page.keyboard.press('Enter');
  await told('“Name” of row 3 changed.');
  await cell('Ada Quist').waitFor();
  await undone('Tenant 29');
});

visit('a range is copied and pasted as in a spreadsheet, as text and as a table, and is undone in one step', async () => {
  await cell('P-3').click();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  expect(await grid().locator('[role=gridcell][aria-selected=true]').allTextContents()).toEqual(['P-3', 'Tenant 28', 'P-4', 'Tenant 27']);
  await page.keyboard.press('Control+c');
  await cell('P-5').click();
  await page.keyboard.press('Control+v');
  await told('4 values pasted.');
  await page.waitForFunction(
    () => [...document.querySelectorAll('[role=gridcell]')].filter(({ textContent }) => textContent === 'P-3').length === 2,
  );
  await undone('P-5');
  // What a spreadsheet program hands over, with a line that is longer than the sheet is wide.
  await cell('Tenant 26').click();
  await grid().evaluate((element) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', 'Ayla Ünal\tayla@example.org\r\n"Quist, ""Pip"""\tpip@example.org\r\n');
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  });
  await told('4 values pasted.');
  await cell('Quist, "Pip"').waitFor();
  await cell('pip@example.org').waitFor();
  await undone('Tenant 26');
});

visit('a range is emptied, and comes back', async () => {
  await cell('Tenant 22').click();
  await cell('Tenant 20').click({ modifiers: ['Shift'] });
  await page.keyboard.press('Delete');
  await told('3 values emptied.');
  await cell('Tenant 21').waitFor({ state: 'detached' });
  await undone('Tenant 21');
});

visit('records are ordered by a heading, narrowed, and stay so after a reload', async () => {
  const first = (): Locator => grid().locator('[role=row][aria-rowindex="2"]');
  await grid().getByRole('columnheader', { name: /Name/ }).hover();
  await grid().getByRole('button', { name: 'Order by Name' }).click();
  // 1, 2, 10 and not 1, 10, 2.
  await first().getByText('Tenant 1', { exact: true }).waitFor();
  await grid().locator('[role=row][aria-rowindex="3"]').getByText('Tenant 2', { exact: true }).waitFor();
  await page.getByRole('textbox', { name: 'Find in the records' }).fill('yes');
  await page.getByText('10 of 30 records').waitFor();
  await first().getByText('Tenant 3', { exact: true }).waitFor();
  await page.reload();
  await page.getByText('10 of 30 records').waitFor();
  await first().getByText('Tenant 3', { exact: true }).waitFor();
  // What is changed in a view is changed in its own row, and stays where it is seen.
  await cell('Tenant 6').click();
  await page.keyboard.type('Zoë');
  await page.keyboard.press('Enter');
  await told('“Name” of row 26 changed.');
  await grid().locator('[role=row][aria-rowindex="3"]').getByText('Zoë', { exact: true }).waitFor();
  await undone('Tenant 6');
});

visit('one text is replaced by another in a column, after a question, and undone', async () => {
  await page.getByRole('textbox', { name: 'Find in the records' }).fill('Tenant');
  await page.getByText('30 of 30 records').waitFor();
  await page.getByRole('button', { name: 'Replace', exact: true }).click();
  await page.getByRole('textbox', { name: 'Replace with' }).fill('Member');
  await page.getByRole('button', { name: 'Replace all' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Replace all' }).click();
  await told('“Tenant” replaced in 30 values.');
  // Nothing holds the text any more, and what is seen stays until one looks anew.
  await cell('Member 30').waitFor();
  await undone('Tenant 30');
});

visit('one goes to a row by its number', async () => {
  await page.getByRole('textbox', { name: 'Go to row' }).fill('25');
  await page.keyboard.press('Enter');
  const active = grid().locator('[data-active]');
  await active.waitFor();
  expect(await active.evaluate((one) => one.parentElement?.querySelector('[role=rowheader]')?.textContent)).toBe('25');
});

visit('what could not be copied is not cut away', async () => {
  const rows = Array.from({ length: 400 }, (_, at) => `L-${at + 1},Long ${at + 1}`);
  const csv = new TextEncoder().encode(`Plot,Name\r\n${rows.join('\r\n')}\r\n`);
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/sources/files', 'long.csv', csv);
  const made = await mailbag.client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: 'long.csv', reading: { headingRow: 1 } }); // prettier-ignore
  await mailbag.client.until<{ state: string }>(`/api/sources/${made.id}`, ({ state }) => state === 'ready');
  await page.goto(`${mailbag.address}/sources/${made.id}`);
  await cell('L-1').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+x');
  await told('Not all of it has been loaded yet.');
  expect((await mailbag.client.get<unknown[]>(`/api/sources/${made.id}/corrections`)).length).toBe(0);
  // What was read is cut, and comes back.
  await cell('L-2').click();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Control+x');
  await told('2 values emptied.');
  await cell('L-2').waitFor({ state: 'detached' });
  await undone('L-2');
});
