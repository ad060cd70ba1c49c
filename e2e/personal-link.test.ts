import type { Browser, BrowserContext, Locator, Page } from 'playwright-core';
import { startBatch } from '../demo/src/start-batch.js';
import { violationsOn } from '../testing/axe.js';
import { codesOn } from '../testing/codes-on.js';
import { PATIENCE } from '../testing/patience.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import type { Batch } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { storyOn } from './steps.js';

/** A page is put before a mailing; its paper holds a link for each recipient, and one of them corrects what the office knows. */
let browser: Browser;
let page: Page;
let faults: string[];
let pocket: BrowserContext;
let phone: Page;
let office: PostOffice;
let mailing: number;
let copy: number;
/** Of the permit, in points as in its /Rect. */
let nameBox: [number, number, number, number];
const mailbag = new RunningMailbag();

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  ({ mailing } = await smallMailing(mailbag.client, [
    ['P-1', 'Fine Quist', 'fine.quist@example.org', 'yes'],
    ['P-2', 'Ole Brandt', 'ole.brandt@example.org', 'no'],
  ]));
  const { templates } = await mailbag.client.get<{
    templates: { fieldList: { name: string; widgets: { rect: [number, number, number, number] }[] }[] }[];
  }>(`/api/mailings/${mailing}`);
  nameBox = templates[0]!.fieldList.find(({ name }) => name === 'permit.name')!.widgets[0]!.rect;
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Intakes');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
});

const step = storyOn(() => ({ page, faults }), 'a recipient corrects by a link of their own what the office knows');
const button = (name: string | RegExp, of: Page = page): Locator => of.getByRole('button', { name, exact: true });
const saved = (): Promise<void> => page.getByText('Saved', { exact: true }).waitFor();

step('an intake is put before the mailing, and asks what its records hold', async () => {
  await button(/For$/).click();
  await page.getByRole('option', { name: /^the recipients of “Permits”/ }).click();
  await page.getByLabel('Name of the intake').fill('Check your permit');
  await button('Make the page').click();
  await page.getByRole('heading', { name: 'Check your permit' }).waitFor();
  await page.getByRole('link', { name: /^Page / }).click();
  await page.getByRole('heading', { name: 'Personal links' }).waitFor();
  await button(/Asked before anything is shown$/).click();
  await page.getByRole('option', { name: 'Plot', exact: true }).click();
  await saved();
  await button('Publish').click();
  await page.getByText('published', { exact: true }).waitFor();
});

step('the symbol on the paper holds the link, and the batch is made', async () => {
  await page.goto(`${mailbag.address}/mailings/${mailing}/output`);
  await button('Output').click();
  await button(/Symbol$/).click();
  await page.getByRole('option', { name: /^QR code/ }).click();
  await page.getByText('the recipient’s personal link').click();
  await page.getByLabel('Width, mm').fill('32');
  await page.keyboard.press('Tab');
  await saved();
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  copy = (await copiesOf(mailbag.client, id)).find(({ recipient }) => recipient === 'Fine Quist')!.id;
});

step('a phone that reads the paper opens the page, once it is told what only the recipient knows', async () => {
  const [code] = (await codesOn(await mailbag.client.bytes(`/api/copies/${copy}/pdf`))).filter(({ text }) => text.includes('/in/'));
  pocket = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, locale: 'de-DE' });
  phone = await pocket.newPage();
  phone.setDefaultTimeout(PATIENCE);
  phone.on('pageerror', (error) => faults.push(error.message));
  await phone.goto(code!.text);
  await phone.getByRole('heading', { name: 'Damit sich Ihre Seite öffnet, sagen Sie uns bitte:' }).waitFor();
  await phone.getByLabel('Plot').fill('P-2');
  await button('Meine Seite öffnen', phone).tap();
  await phone.getByText('Das stimmt nicht mit unseren Angaben überein.', { exact: false }).waitFor();
  await phone.getByLabel('Plot').fill('P-1');
  await button('Meine Seite öffnen', phone).tap();
  await phone.getByText('Was wir schon wissen, steht da.', { exact: false }).waitFor();
});

step('a tap on a box of the filled form leads to its question', async () => {
  await button('Beginnen', phone).tap();
  const name = phone.getByLabel(/^Name/);
  expect(await name.inputValue()).toBe('Fine Quist');
  await button('Das Formular ansehen, wie es bisher ausgefüllt ist', phone).tap();
  await phone.getByText('Tippen Sie auf ein Feld, um die Antwort zu ändern.').waitFor();
  const leaf = phone.getByRole('img', { name: 'permit 1' });
  const { width, height } = (await leaf.boundingBox())!;
  const [left, bottom, right, top] = nameBox;
  // The page of the permit is A4: 595 by 842 points.
  await leaf.tap({ position: { x: ((left + right) / 2 / 595.28) * width, y: (1 - (bottom + top) / 2 / 841.89) * height } });
  await phone.waitForFunction((input) => input === document.activeElement, await name.elementHandle());
  // Nothing that WCAG 2.2 AA asks for is missing, as far as a program can tell.
  expect(await violationsOn(phone)).toEqual([]);
});

step('what is corrected is sent, and the office sees old and new beside each other', async () => {
  await phone.getByLabel(/^Name/).fill('Fine Quist-Lund');
  while ((await phone.getByRole('heading', { name: 'Prüfen und absenden' }).count()) === 0) await button(/^Weiter/, phone).tap();
  await button('Absenden', phone).tap();
  await phone.getByRole('heading', { name: 'Vielen Dank' }).waitFor();
  await pocket.close();
  await page.goto(`${mailbag.address}/ledger`);
  await page.getByRole('row', { name: /Fine Quist.*returned/ }).waitFor();
  await page.getByRole('link', { name: /^Desk/ }).click();
  await page.getByRole('link', { name: 'Look at them' }).click();
  const corrections = page.getByRole('table', { name: 'Corrections' });
  await corrections.getByRole('row', { name: /Name.*Fine Quist.*Fine Quist-Lund/ }).waitFor();
  await button('Take over').click();
  await page.getByText('taken over', { exact: true }).waitFor();
  await page.goto(`${mailbag.address}/ledger`);
  await page.getByRole('row', { name: /Fine Quist.*complete/ }).waitFor();
});
