import { readFileSync } from 'node:fs';
import type { Browser, Locator, Page } from 'playwright-core';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { smallMailing } from '../testing/small-mailing.js';
import { drawnAgain, openBrowser, openPage, sheetRow, signInTo, timesDrawn } from './browser.js';
import { visitsOn } from './steps.js';

/** A map is seen to be right for every record, not only for the first. */
let browser: Browser;
let page: Page;
let faults: string[];
let mailing: number;
/** What it is called: there is one for each visit. */
let called: string;
const mailbag = new RunningMailbag();

beforeAll(async () => {
  await (await mailbag.start()).setUp();
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Mailings');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
});

interface MailingNow {
  version: number;
  plan: { packet: number[]; maps: Record<string, Record<string, object>> };
}
/** Each visit has a mailing of its own before it, in which a box is ticked whatever the column says. */
async function begin(): Promise<void> {
  const rows = Array.from({ length: 20 }, (_, at): [string, string, string, string] => [
    `P-${at + 1}`,
    at === 6 ? 'Ayumi Maximiliane Theodora Brandt' : `Tenant ${at + 1}`,
    `p${at + 1}@example.org`,
    at % 2 === 0 ? 'yes' : 'no',
  ]);
  const { mailing: id, template } = await smallMailing(mailbag.client, rows, { mailed: false });
  const { version, plan } = await mailbag.client.get<MailingNow>(`/api/mailings/${id}`);
  const wrong = { kind: 'translate', column: 'Shed', table: [{ from: 'yes', to: 'On' }, { from: 'no', to: 'On' }] }; // prettier-ignore
  [mailing, called] = [id, `Permits no. ${id}`];
  await mailbag.client.send('PUT', `/api/mailings/${id}`, {
    version,
    plan: { ...plan, name: called, maps: { [template]: { ...plan.maps[template], 'permit.shed': wrong } } },
  });
  await page.goto(`${mailbag.address}/mailings/${id}/map`);
  await row(/^Name of the tenant/)
    .getByText('Tenant 1', { exact: true })
    .waitFor();
}
const visit = visitsOn(() => ({ page, faults }), begin);
const button = (name: string | RegExp): Locator => page.getByRole('button', { name });
const row = (label: string | RegExp): Locator => sheetRow(page, label);

visit('a box that is ticked for everybody is seen by its numbers, and mended', async () => {
  await row(/^A shed up to/).click();
  await page.getByText('20 of 20 ticked: is that intended?').waitFor();
  await button(/Becomes, value 2$/).click();
  await page.getByRole('option', { name: 'not ticked' }).click();
  await button('not ticked: 10 of 20').click();
  // The list behind the number; one of it is stood on.
  const list = page.getByRole('list', { name: 'Records behind the number' });
  await list.getByRole('button', { name: /P-20/ }).waitFor();
  expect(await list.getByRole('button').count()).toBe(10);
  await list.getByRole('button', { name: /P-4/ }).click();
  await page.getByText('4 of 20').first().waitFor();
  await row(/^A shed up to/)
    .getByText('not ticked')
    .waitFor();
});

visit('a column is dragged onto its box on the page', async () => {
  const { version, plan } = await mailbag.client.get<MailingNow>(`/api/mailings/${mailing}`);
  const [template = 0] = plan.packet;
  const { 'permit.name': _name, ...rest } = plan.maps[template]!;
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, maps: { [template]: rest } } });
  await page.reload();
  await row(/^A shed up to/).click();
  const before = await timesDrawn(page);
  const column = page.getByRole('group', { name: 'Columns' }).getByRole('button', { name: /^Name/ });
  const [from, to] = [await column.boundingBox(), await page.locator('[data-field="permit.name"]').boundingBox()];
  await page.mouse.move(from!.x + 8, from!.y + 8);
  await page.mouse.down();
  await page.mouse.move(to!.x + 40, to!.y - 20, { steps: 6 });
  await page.mouse.move(to!.x + 20, to!.y + to!.height / 2, { steps: 4 });
  await page.mouse.up();
  await row(/^Name of the tenant/)
    .getByText('Tenant 1', { exact: true })
    .waitFor();
  await drawnAgain(page, before);
});

visit('rows below a rule that is opened stay where they are while its numbers come', async () => {
  let count = (): void => undefined;
  const counted = new Promise<void>((resolve) => (count = resolve));
  await page.route('**/api/mailings/*/survey', async (route) => (await counted, route.continue()));
  await row(/^Name of the tenant/).click();
  await button(/Column$/).waitFor();
  await page.getByText('Going through all records …').waitFor();
  const placeBelow = async (): Promise<number> => (await row(/^A shed up to/).boundingBox())!.y;
  const before = await placeBelow();
  count();
  await page.getByText('Over 20 records, 20 different values').waitFor();
  expect(await placeBelow()).toBe(before);
  await page.unroute('**/api/mailings/*/survey');
});

visit('whichever box is being changed, the page looks the same', async () => {
  const canvas = page.locator('canvas[data-drawn]').first();
  /** How many colour values of the page are dark, and how many are others than the last time that they were looked at. */
  const look = (): Promise<{ values: number; dark: number; changed: number }> =>
    canvas.evaluate((element) => {
      const { width, height } = element as HTMLCanvasElement;
      const { data } = (element as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, width, height);
      const seen = window as unknown as { seen?: Uint8ClampedArray };
      const before = seen.seen ?? data;
      seen.seen = data;
      return {
        values: data.length,
        dark: data.filter((value) => value < 100).length,
        changed: data.filter((value, at) => Math.abs(value - before[at]!) > 32).length,
      };
    });
  const choose = async (label: RegExp): ReturnType<typeof look> => {
    const before = await timesDrawn(page);
    await row(label).click();
    await drawnAgain(page, before);
    return look();
  };
  const { values, dark } = await choose(/^Name of the tenant/);
  expect(dark).toBeGreaterThan(100);
  expect(dark).toBeLessThan(values / 5);
  expect((await choose(/^A shed up to/)).changed).toBe(0);
});

visit('the worst case and the row of the source stand beside the page', async () => {
  await page.locator('h1').click();
  await page.keyboard.press('Escape');
  await row(/^Name of the tenant/).focus();
  await page.keyboard.press('w');
  await page.getByText(/^Nobody has this record/).waitFor();
  await row(/^Name of the tenant/)
    .getByText('Ayumi Maximiliane Theodora Brandt')
    .waitFor();
  await page.keyboard.press('w');
  await row(/^Name of the tenant/)
    .getByText('Tenant 1', { exact: true })
    .waitFor();
  await button('Row').click();
  await row(/^Name of the tenant/).click();
  await page.getByLabel('Row of the source').getByText('Name · in this box').waitFor();
});

visit('copies lie side by side on the contact sheet, and each leads to its record', async () => {
  await page.getByRole('link', { name: 'Contact sheet' }).click();
  const sheet = page.getByRole('region', { name: 'Contact sheet' });
  await sheet
    .getByRole('status')
    .getByText(/^\d+ copies$/)
    .waitFor();
  await button(/Each value of/).click();
  await page.getByRole('option', { name: /^Shed/ }).click();
  await sheet.getByText('Shed: no').waitFor();
  // Who is on it stands in the address: it comes back with it.
  await page.reload();
  await sheet.getByText('Shed: no').waitFor();
  const longest = sheet.getByRole('button', { name: /P-7 Ayumi/ });
  await longest.getByText(/longest/).waitFor();
  await sheet.locator('img').first().waitFor();
  await longest.click();
  await page.getByText('7 of 20').first().waitFor();
  expect(page.url()).toContain('record=6');
});

visit('a mailing begins as an earlier one, and columns that are called otherwise in the new sheet are linked', async () => {
  const { client } = mailbag;
  const csv = 'Plot no.,Full name,Mail,Hut\r\nQ-1,Noor Haddad,n@example.org,yes\r\n';
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'next.csv', new TextEncoder().encode(csv));
  const { id } = await client.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [fileId],
    name: 'next.csv',
    reading: { headingRow: 1 },
  });
  await client.until<{ state: string }>(`/api/sources/${id}`, ({ state }) => state === 'ready');
  await page.getByRole('link', { name: 'Mailings' }).first().click();
  await page.getByLabel('Name of the new mailing').fill(`${called}, next year`);
  await button(/Start as$/).click();
  await page.getByRole('option', { name: `as ${called}` }).click();
  await button('Begin a mailing').click();
  await row(/^Name of the tenant/)
    .getByText('Tenant 1')
    .waitFor();
  await page
    .getByRole('navigation', { name: 'Parts of the mailing' })
    .getByRole('link', { name: /^Records/ })
    .click();
  await button(/Source$/).click();
  await page.getByRole('option', { name: /^next\.csv/ }).click();
  await page.getByText('Noor Haddad').waitFor();
  await page.getByRole('navigation', { name: 'Parts of the mailing' }).getByRole('link', { name: /^Map/ }).click();
  await page.getByText(/^The rules read 3 columns that these records do not have/).waitFor();
  // Two are like what there is; the third is said by hand.
  await button(/Shed is now$/).click();
  await page.getByRole('option', { name: /^Hut/ }).click();
  await button('Link 3 columns').click();
  await row(/^Name of the tenant/)
    .getByText('Noor Haddad')
    .waitFor();
  await row(/^A shed up to/)
    .getByText('ticked', { exact: true })
    .waitFor();
});

visit('what was changed has a way back, and from that another one', async () => {
  const changes = page.getByRole('dialog', { name: 'Changes of this mailing' });
  const back = async (): Promise<void> => {
    await button('Changes').click();
    await changes.getByRole('button', { name: /^Back to before this: .*map/ }).first().click(); // prettier-ignore
    await changes.waitFor({ state: 'detached' });
  };
  await back();
  // What it was before all of it: a mailing with nothing in it.
  await page.getByRole('heading', { name: 'Nothing to map yet' }).waitFor();
  await back();
  await row(/^Name of the tenant/)
    .getByText('Tenant 1', { exact: true })
    .waitFor();
});

visit('a mailing leaves as a zip, comes in again as another one, and is put away', async () => {
  await page.getByRole('link', { name: 'Mailings' }).first().click();
  const [leaving] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: `Export “${called}”` }).click()]);
  expect(leaving.suggestedFilename()).toBe(`${called}.zip`);
  const zip = await leaving.path();
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button('Import').click()]);
  await chooser.setFiles({ name: 'leaving.zip', mimeType: 'application/zip', buffer: readFileSync(zip) });
  // It has the packet and the map; records are to be chosen.
  await row(/^Name of the tenant/)
    .getByText('Name', { exact: true })
    .waitFor();
  await page.getByRole('link', { name: 'Mailings' }).first().click();
  const named = page.getByRole('row', { name: new RegExp(`${called}\\b`) });
  await named.nth(1).waitFor();
  await named
    .first()
    .getByRole('button', { name: `Archive “${called}”` })
    .click();
  await named.nth(1).waitFor({ state: 'detached' });
  await button('Archived 1').click();
  await page.getByRole('button', { name: `Restore “${called}”` }).click();
  await named.nth(1).waitFor();
});
