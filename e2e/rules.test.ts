import PDFDocument from 'pdfkit';
import type { Browser, Locator, Page } from 'playwright-core';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, sheetRow, signInTo } from './browser.js';
import { visitsOn } from './steps.js';

/** Every kind of rule is made on a form by another program, with the keyboard alone. */
let browser: Browser;
let page: Page;
let faults: string[];
let mailing: number;
const mailbag = new RunningMailbag();

/** One box a kind of rule, and a tick. */
const boxes = ['Column', 'Composed', 'Liquid', 'Portion', 'Shortened', 'Fitted', 'Date', 'Number', 'Calculation', 'Cases', 'Looked up', 'Tidied', 'First', 'Address', 'Running', 'Fixed', 'Blank']; // prettier-ignore
const record = {
  Plot: 'B-12',
  Name: 'ANNA VAN DER BERG',
  Area: '187.5',
  Born: '1984-03-05',
  Site: 'Brook',
  Mobile: '',
  Phone: '0351 4960',
  Street: 'Reed Lane 1',
  Postcode: '01067',
  Town: 'Larkmere',
  Shed: 'yes',
};

function form(): Promise<Uint8Array> {
  return new Promise((resolve) => {
    const pdf = new PDFDocument({ size: 'A4' });
    const chunks: Buffer[] = [];
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    pdf.font('Helvetica').fontSize(9);
    pdf.initForm();
    boxes.forEach((label, at) => {
      pdf.text(`Box of ${label.toLowerCase()}`, 60, 60 + at * 40);
      pdf.formText(`box${at}`, 60, 72 + at * 40, 300, 20);
    });
    pdf.text('Tick for a shed', 420, 64);
    pdf.formCheckbox('tick', 400, 60, 16, 16);
    pdf.end();
  });
}

beforeAll(async () => {
  await (await mailbag.start()).setUp();
  const { client } = mailbag;
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'rules.pdf', await form());
  const csv = [Object.keys(record), Object.values(record)].map((row) => row.join(',')).join('\r\n');
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', new TextEncoder().encode(`${csv}\r\n`));
  const { id: sourceId } = await client.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [fileId],
    name: 'rows.csv',
    reading: { headingRow: 1 },
  });
  await client.until<{ state: string }>(`/api/sources/${sourceId}`, ({ state }) => state === 'ready');
  const begun = await client.send<{ id: number; version: number }>('POST', '/api/mailings', { name: 'Rules' });
  mailing = begun.id;
  const { plan, version } = await client.get<{ plan: object; version: number }>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, packet: [template.id], sourceId, keyColumn: 'Plot' } });
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Mailings');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
});

const visit = visitsOn(
  () => ({ page, faults }),
  () => page.goto(`${mailbag.address}/mailings/${mailing}/map`),
);
const row = (label: string | RegExp): Locator => sheetRow(page, label);
const sheet = (): Locator => page.getByRole('treegrid', { name: 'Answers of the packet' });

/** Goes on with a key until something has the focus. It is looked for by its role once, and again only when it was drawn anew. */
async function goTo(target: Locator, key: 'Tab' | 'Shift+Tab' | 'ArrowDown', limit: number): Promise<void> {
  await target.waitFor();
  let element = (await target.elementHandle())!;
  for (let presses = 0; presses < limit; presses++) {
    const where = await element.evaluate((own) => (own === document.activeElement ? 'here' : own.isConnected ? 'elsewhere' : 'gone'));
    if (where === 'here') return;
    if (where === 'gone') element = (await target.elementHandle())!;
    else await page.keyboard.press(key);
  }
  throw new Error(`${key} never comes to ${String(target)}`);
}
const tabTo = (target: Locator): Promise<void> => goTo(target, 'Tab', 200);
/** The sheet is one stop of Tab: from the editor of a rule Escape leads back to its row, and arrows from row to row. */
async function arrowTo(label: string): Promise<void> {
  const focused = sheet().locator('[role=row]:focus');
  await page.keyboard.press('Escape');
  if ((await focused.count()) === 0) await tabTo(sheet().locator('[role=row][tabindex="0"]'));
  await page.keyboard.press('Home');
  await goTo(row(label), 'ArrowDown', 200);
}
/** The first of a choice. */
const FIRST = '';
/** Opens a choice, which is called by its value and its label, types the beginning of one and takes it. */
async function choose(name: string, beginning: string): Promise<void> {
  await tabTo(page.getByRole('button', { name: new RegExp(`(^| )${name}$`) }));
  await page.keyboard.press('Enter');
  await page.getByRole('listbox').waitFor();
  if (beginning === FIRST) await page.keyboard.press('Home');
  else await page.keyboard.type(beginning);
  await page.keyboard.press('Enter');
  await page.getByRole('listbox').waitFor({ state: 'detached' });
}
async function write(name: string, text: string): Promise<void> {
  await tabTo(page.getByRole('textbox', { name, exact: true }));
  await page.keyboard.press('Control+A');
  await page.keyboard.type(text);
}
async function press(name: string): Promise<void> {
  await tabTo(page.getByRole('button', { name, exact: true }));
  await page.keyboard.press('Enter');
}

/** What is done for each box after its row is opened, and what stands in it then. */
const makings: [box: string, make: () => Promise<void>, value: string][] = [
  ['Column', async () => (await choose('Kind of rule', 'a column'), choose('Column', 'Town')), 'Larkmere'],
  ['Composed', async () => (await choose('Kind of rule', 'composed text'), await press('Add text'), choose('Add a column', 'Site')), 'B-12, Brook'],
  ['Liquid', async () => (await choose('Kind of rule', 'composed text with'), write('Text with conditions', '{{ plot }} {% if shed == "yes" %}with shed{% endif %}')), 'B-12 with shed'],
  ['Portion', async () => (await choose('Kind of rule', 'a portion'), choose('What is taken', 'what stands before')), 'B'],
  ['Shortened', async () => (await choose('Kind of rule', 'a value, shortened'), await choose('Value: column', 'Name'), await write('Maximum characters', '12'), write('Mark behind it', '…')), 'ANNA VAN…'],
  ['Fitted', async () => (await choose('Kind of rule', 'a value, made'), await choose('Value: column', 'Site'), choose('Where it is too long', 'the size of')), 'Brook'],
  ['Date', async () => (await choose('Kind of rule', 'a date'), choose('Date: column', 'Born')), '5 March 1984'],
  ['Number', async () => (await choose('Kind of rule', 'a number'), choose('Number: column', 'Area')), '187.50'],
  ['Calculation', async () => (await choose('Kind of rule', 'a calculation'), await choose('Calculation', 'product'), await choose('Operand 1: column', 'Area'), write('Number 2', '0.35')), '65.63'],
  ['Cases', async () => (await choose('Kind of rule', 'cases'), await choose('Case 1: What is compared: column', 'Shed'), await choose('Case 1: Test', FIRST), await write('Case 1: Values', 'yes, y'), await choose('Case 1, then: kind of rule', 'fixed'), write('Case 1, then: Fixed text', 'permit')), 'permit'],
  ['Looked up', async () => (await choose('Kind of rule', 'looked up'), await choose('Key: column', 'Site'), write('Value for key 1', '0.42')), '0.42'],
  ['Tidied', async () => (await choose('Kind of rule', 'a text, tidied'), await choose('Text: column', 'Name'), choose('Letters', 'As a Name')), 'Anna van der Berg'],
  ['First', async () => (await choose('Kind of rule', 'the first'), await choose('Choice 1: column', 'Mobile'), await press('Add a choice'), choose('Choice 2: column', 'Phone')), '0351 4960'],
  ['Address', async () => (await choose('Kind of rule', 'an address'), await choose('Street: column', 'Street'), await choose('Postal code: column', 'Postcode'), choose('Town: column', 'Town')), 'B-12, Reed Lane 1, 01067 Larkmere'],
  ['Running', async () => (await choose('Kind of rule', 'date, number'), choose('Fact about the copy', 'a running')), '1'],
  ['Fixed', async () => (await choose('Kind of rule', 'fixed'), write('Fixed text', 'in full')), 'in full'],
  ['Blank', () => choose('Kind of rule', 'left blank'), 'blank'],
]; // prettier-ignore

visit('each kind of rule is chosen, put together and seen at work with keys alone', async () => {
  for (const [box, make, value] of makings) {
    const label = `Box of ${box.toLowerCase()}`;
    await arrowTo(label);
    await page.keyboard.press('Enter');
    await page.getByRole('group', { name: /^Rule for/ }).waitFor();
    await make();
    // The value of the record stands in the row, and in the page beside it.
    await row(label).getByText(value, { exact: true }).first().waitFor();
    // Back to the row, and it closes.
    await goTo(row(label), 'Shift+Tab', 60);
    await page.keyboard.press('Enter');
    await page.getByRole('group', { name: /^Rule for/ }).waitFor({ state: 'detached' });
  }
  await arrowTo('Tick for a shed');
  await page.keyboard.press('Enter');
  await choose('Column', 'Shed');
  await row('Tick for a shed').getByText('ticked', { exact: true }).waitFor();
  await page.getByText('Saved', { exact: true }).waitFor();
});

visit('a rule that cannot be worked out for a record is a stop with its sentence', async () => {
  await page.keyboard.press('Escape');
  await arrowTo('Box of number');
  await page.keyboard.press('Enter');
  await choose('Kind of rule', 'a number');
  await choose('Number: column', 'Town');
  await page.getByText('“Larkmere” is not a number', { exact: false }).first().waitFor();
  await page.getByRole('link', { name: /Checks 1 stop/ }).waitFor();
});
