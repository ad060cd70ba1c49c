import { encode as encodePng } from 'fast-png';
import { zipSync } from 'fflate';
import type { Browser, Locator, Page } from 'playwright-core';
import { childrensPlot } from '../demo/src/forms/childrens-plot.js';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { drawnAgain, openBrowser, openPage, sheetRow, signInTo, timesDrawn } from './browser.js';
import { visitsOn } from './steps.js';

/** A sheet with a row a child becomes a record a family, and a record so many copies as its children need; pictures and rates come from beside it. */
let browser: Browser;
let page: Page;
let faults: string[];
let mailing: number;
const mailbag = new RunningMailbag();

interface Saved {
  id: number;
  version: number;
}
const text = (lines: readonly string[]): Buffer => Buffer.from(`${lines.join('\r\n')}\r\n`);
const children = text(['Plot,Tenant,Sign,Child', 'A-1,Bay,snail,Ada', 'A-2,Moss,sun,Cy', 'A-1,Bay,snail,Bo', 'A-1,Bay,snail,Di']);
const beds = text(['Who,Grows', 'Ada,Radishes', 'Bo,Peas', 'Cy,Pumpkins', 'Di,Sunflowers']);
const black = Buffer.from(encodePng({ width: 20, height: 20, channels: 3, depth: 8, data: new Uint8Array(1200) }));
const signs = Buffer.from(zipSync({ 'signs/snail.png': black, 'signs/sun.png': black, 'signs/readme.txt': text(['signs']) }));

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

/** Each visit has a mailing of its own over a source with pictures, and begins at its packet. */
async function begin(): Promise<void> {
  const { client } = mailbag;
  const { template } = await client.upload<{ template: Saved }>('/api/templates', 'Children.pdf', childrensPlot());
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'children.csv', children);
  const reading = { headingRow: 1, onePer: 'Plot' };
  const source = await client.send<Saved>('POST', '/api/sources', { fileIds: [fileId], name: 'children.csv', reading });
  await client.until<{ state: string }>(`/api/sources/${source.id}`, ({ state }) => state === 'ready');
  await client.upload(`/api/sources/${source.id}/pictures`, 'signs.zip', signs);
  const saved = await client.send<Saved>('POST', '/api/mailings', { name: 'Children' });
  mailing = saved.id;
  const column = (name: string): object => ({ kind: 'column', column: name });
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version: saved.version,
    plan: {
      name: 'Children',
      packet: [template.id],
      sourceId: source.id,
      keyColumn: 'Plot',
      leftOut: [],
      maps: {
        [template.id]: {
          'children.plot': column('Plot'),
          'children.row1.name': column('Child 1'),
          'children.row2.name': column('Child 2'),
        },
      },
      output: { folder: `Children ${mailing}`, file: '{{ plot }}.pdf' },
      message: { mailed: false, addressColumn: null, recipient: '{{ tenant }}', subject: '', body: '' },
    },
  });
  await page.goto(`${mailbag.address}/mailings/${mailing}/packet`);
}
const visit = visitsOn(() => ({ page, faults }), begin);
const button = (name: string | RegExp): Locator => page.getByRole('button', { name });
async function choose(name: string | RegExp, option: string | RegExp): Promise<void> {
  await button(name).click();
  await page.getByRole('option', { name: option }).click();
}
/** Chooses a file as a person does from the system’s own dialog. */
async function give(press: Locator, file: { name: string; mimeType: string; buffer: Buffer }): Promise<void> {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), press.click()]);
  await chooser.setFiles(file);
}

visit('rows with the same key are read as one record', async () => {
  await page.goto(`${mailbag.address}/sources`);
  await give(button('Choose a sheet'), { name: 'children.csv', mimeType: 'text/csv', buffer: children });
  await choose(/One record for$/, /^All rows with the same Plot/);
  await page.getByText(/Columns in which the rows of one Plot differ stand once for each of them, numbered/).waitFor();
  await button('Read the records').click();
  await page.getByText(/^2 records · 6 columns · headings in row 1, one record for each Plot/).waitFor();
  for (const name of ['Child 1', 'Child 2', 'Child 3'])
    await page.getByRole('grid', { name: 'Records' }).getByText(name, { exact: true }).waitFor();
});

visit('pictures come with the records in a zip, and what is none of them is told', async () => {
  const { client } = mailbag;
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'bare.csv', children);
  const { id } = await client.send<Saved>('POST', '/api/sources', { fileIds: [fileId], name: 'bare.csv', reading: { headingRow: 1 } });
  await client.until<{ state: string }>(`/api/sources/${id}`, ({ state }) => state === 'ready');
  await page.goto(`${mailbag.address}/sources/${id}`);
  await button('Pictures, 0').click();
  await give(button('Add pictures or a zip'), { name: 'signs.zip', mimeType: 'application/zip', buffer: signs });
  await page.getByText('2 pictures came in. 1 file left out. signs/readme.txt: only PNG and JPEG are taken.').waitFor();
  await button('Pictures, 2').waitFor();
});

/** One copy holds two of a record's children. */
async function twoInACopy(): Promise<void> {
  await button('Several copies of Children').click();
  const copies = page.getByRole('group', { name: 'Copies of Children' });
  await copies.getByText('The record you are on gets 3 copies.', { exact: false }).waitFor();
  await copies.getByLabel('Items in one copy of Children').fill('2');
  await copies.getByText('The record you are on gets 2 copies.', { exact: false }).waitFor();
}
visit('a template gets as many copies as a record has items for it', twoInACopy);

visit('each copy is seen on the page, with its own items', async () => {
  await twoInACopy();
  await page.getByRole('link', { name: /^Map/ }).click();
  await page.getByText('Copy 1 of 2 for this record').waitFor();
  await sheetRow(page, /^Name of child 1/).getByText('Ada').waitFor(); // prettier-ignore
  await sheetRow(page, /^Name of child 2/).getByText('Bo').waitFor(); // prettier-ignore
  const before = await timesDrawn(page);
  await button('Next copy').click();
  await sheetRow(page, /^Name of child 1/).getByText('Di').waitFor(); // prettier-ignore
  await sheetRow(page, /^Name of child 2/).getByText('blank').first().waitFor(); // prettier-ignore
  await drawnAgain(page, before);
  await button('Previous copy').click();
});

visit('a table of a rule is taken from two columns of another source', async () => {
  await twoInACopy();
  const { client } = mailbag;
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'beds.csv', beds);
  await client.send('POST', '/api/sources', { fileIds: [fileId], name: 'beds.csv', reading: { headingRow: 1 } });
  await page.getByRole('link', { name: /^Map/ }).click();
  await sheetRow(page, /^Bed of child 1/).click();
  await choose(/Kind of rule$/, /^looked up in a table/);
  await choose(/Key: column$/, /^Child 1/);
  await button('Take the table from a source …').click();
  await choose(/Source of the table$/, /^beds\.csv/);
  await choose(/Column of the keys$/, /^Who/);
  await choose(/Column of what is found$/, /^Grows/);
  await button('Take the table').click();
  await page.getByText(/^4 lines from “beds.csv”: Who → Grows\./).waitFor();
  await sheetRow(page, /^Bed of child 1/).getByText('Radishes').waitFor(); // prettier-ignore
  await button('Next copy').click();
  await sheetRow(page, /^Bed of child 1/).getByText('Sunflowers').waitFor(); // prettier-ignore
});

visit('a box takes the picture that a column names', async () => {
  await page.goto(`${mailbag.address}/mailings/${mailing}/output`);
  await button('Output').click();
  await choose(/Box$/, /^Sign at the bed/);
  await choose(/Or named by$/, /^Sign/);
  await page.getByText('the picture that Sign names in Sign at the bed').waitFor();
  await page.getByText('2 pictures came with these records.', { exact: false }).waitFor();
  await page.getByText('Saved', { exact: true }).waitFor();
});

visit('the start counts the copies, and the batch makes them', async () => {
  await twoInACopy();
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.getByRole('link', { name: 'Start a batch' }).click();
  await page.getByRole('heading', { name: '3 copies of 1 template' }).waitFor();
  await button('Make 3 copies').click();
  await page.waitForURL(/\/batches\/\d+/);
  await page.getByText('3 copies of 2 records', { exact: false }).waitFor();
  for (const file of ['A-1.pdf', 'A-1 (2).pdf', 'A-2.pdf']) await page.getByText(file, { exact: true }).waitFor();
});
