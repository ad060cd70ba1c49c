import { readFile } from 'node:fs/promises';
import { unzipSync } from 'fflate';
import { simpleParser } from 'mailparser';
import type { Browser, BrowserContext, Locator, Page } from 'playwright-core';
import { violationsOn } from '../testing/axe.js';
import { readByOther } from '../testing/other-reader.js';
import { PATIENCE } from '../testing/patience.js';
import { inkIn, pictureOf } from '../testing/picture.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import { askForAPlot } from './ask-for-a-plot.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { storyOn } from './steps.js';

/** Somebody answers a page on a phone, in German, and gets their copies. */
let browser: Browser;
let page: Page;
let faults: string[];
let phone: Page;
let pocket: BrowserContext;
let office: PostOffice;
const mailbag = new RunningMailbag();

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  await askForAPlot(mailbag.client);
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
});

const step = storyOn(() => ({ page, faults }), 'a visitor answers a page on a phone and gets the copies');

/** Another phone, with nothing on it. */
async function openPhone(): Promise<void> {
  pocket = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    locale: 'de-DE',
    acceptDownloads: true,
  });
  phone = await pocket.newPage();
  phone.setDefaultTimeout(PATIENCE);
  phone.on('pageerror', (error) => faults.push(error.message));
}
async function sayPhrase(phrase: string): Promise<void> {
  await phone.getByRole('heading', { name: 'Diese Seite hat ein Kennwort' }).waitFor();
  await phone.getByLabel('Das Kennwort').fill(phrase);
  await german('Seite öffnen').tap();
}
const german = (name: string | RegExp): Locator => phone.getByRole('button', { name, exact: true });

step('on a phone it speaks the language of the visitor, and what is missing leads to its question', async () => {
  await openPhone();
  await phone.goto(`${mailbag.address}/in/plots-2027`);
  await sayPhrase('garden shed');
  await phone.getByRole('alert').getByText('Das ist nicht das Kennwort.').waitFor();
  expect(await violationsOn(phone)).toEqual([]);
  await sayPhrase('Garden Gate');
  await phone.getByText('Have your bank card at hand.').waitFor();
  expect(await violationsOn(phone)).toEqual([]);
  // What a phone must fetch before anybody can answer: scripts and styles, as they travel.
  const travelled = await phone.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => /\.(?:js|css)$/.test(name))
      .reduce((sum, entry) => sum + (entry as PerformanceResourceTiming).encodedBodySize, 0),
  );
  expect(travelled).toBeGreaterThan(10_000);
  expect(travelled).toBeLessThan(170_000);
  await german('Beginnen').tap();
  await phone.getByRole('heading', { name: 'For which plot' }).waitFor();
  await phone.getByLabel(/^Name of the tenant/).fill('Ayumi Brandt');
  await phone.getByLabel(/^E-mail address/).fill('ayumi@');
  await german(/^Weiter/).tap();
  await phone.getByRole('alert').getByText('2 Antworten brauchen noch einen Blick:').waitFor();
  expect(await violationsOn(phone)).toEqual([]);
  await phone.getByRole('alert').getByRole('link', { name: 'Welche Parzelle möchten Sie?' }).tap();
  await phone.keyboard.type('B-17');
  await phone.getByText('Das ist keine E-Mail-Adresse.').first().waitFor();
  await phone.getByLabel(/^E-mail address/).fill('ayumi@example.org');
  await german(/^Weiter/).tap();
  await phone.getByRole('heading', { name: 'The account' }).waitFor();
});

step('printed, the page is all of the form, with what was answered and room for the rest', async () => {
  await phone.emulateMedia({ media: 'print' });
  await phone.locator('[data-printed]').getByText('Signature of the account holder').waitFor();
  const printed = (await phone.locator('[data-printed]').innerText()).replaceAll('\n', ' ');
  expect(printed).toContain('Welche Parzelle möchten Sie? B-17');
  expect(printed).toMatch(/☐ Once a year ☐ Zweimal im Jahr/);
  expect(await german(/^Weiter/).isVisible()).toBe(false);
  await phone.emulateMedia({ media: 'screen' });
  await phone.locator('[data-printed]').waitFor({ state: 'detached' });
});

step('an account number with a wrong digit is told as one leaves it', async () => {
  await phone.getByLabel(/^Account holder/).fill('Ayumi Brandt');
  await phone.getByLabel(/^IBAN/).fill('DE89 3704 0044 0532 0130 01');
  await phone.getByLabel(/^Account holder/).focus();
  await phone.getByText(/^Das ist keine richtige Kontonummer/).waitFor();
  await phone.getByLabel(/^IBAN/).fill('DE89 3704 0044 0532 0130 00');
  await german(/^Weiter/).tap();
  await phone.getByText('Zweimal im Jahr').tap();
  await german(/^Weiter/).tap();
});

step('a signature is drawn with the finger, and a reload loses nothing', async () => {
  const pad = phone.getByRole('img', { name: /^Signature of the account holder/ });
  await pad.scrollIntoViewIfNeeded();
  expect(await violationsOn(phone)).toEqual([]);
  const box = (await pad.boundingBox())!;
  await phone.mouse.move(box.x + 30, box.y + 90);
  await phone.mouse.down();
  for (let at = 0; at <= 20; at++) await phone.mouse.move(box.x + 30 + at * 14, box.y + 90 + (at % 2 === 0 ? -50 : 50), { steps: 3 });
  await phone.mouse.up();
  await phone.reload();
  await phone.getByRole('img', { name: /^Signature of the account holder/ }).waitFor();
  await german(/^Weiter/).tap();
});

step('a link that is mailed to the visitor goes on elsewhere, where they stopped', async () => {
  await german('Link zum späteren Weitermachen mailen').tap();
  await phone.getByLabel('Ihre E-Mail-Adresse').fill('ayumi@example.org');
  await german('Link mailen').tap();
  await phone.getByText('Der Link ist unterwegs. Er gilt 14 Tage.').waitFor();
  const heading = await phone.getByRole('heading', { level: 1 }).textContent();
  const [letter] = (await office.letters()).filter(({ to }) => to === 'ayumi@example.org');
  const text = Buffer.from(await office.raw(letter!.id))
    .toString('utf8')
    .replaceAll('=\r\n', '');
  const link = /http:\/\/\S+#[\w-]{43}/.exec(text)![0];
  await pocket.close();
  await openPhone();
  await phone.goto(link);
  // The link alone does not open a page that has a pass phrase.
  await sayPhrase('garden gate');
  await phone.getByRole('heading', { name: heading!, level: 1 }).waitFor();
  expect(phone.url()).not.toContain('#');
});

step('what hangs on another answer is asked only then', async () => {
  // The permit: where, and what is allowed.
  while ((await phone.getByRole('group', { name: /^Greenhouse/ }).count()) === 0) await german(/^Weiter/).tap();
  expect(await phone.getByRole('group', { name: /^Roof/ }).count()).toBe(0);
  await phone
    .getByRole('group', { name: /^Greenhouse/ })
    .getByText('Ja', { exact: true })
    .tap();
  await phone.getByRole('group', { name: /^Roof/ }).getByText('Green roof').tap();
});

step('the filled form is seen before anything is sent', async () => {
  await german('Das Formular ansehen, wie es bisher ausgefüllt ist').tap();
  await phone.getByRole('img', { name: 'Bank mandate 1' }).waitFor();
  await phone.getByRole('combobox', { name: /^Das Formular ansehen/ }).selectOption('Shed permit');
  await phone.getByRole('img', { name: 'Shed permit 1' }).waitFor();
  expect(await violationsOn(phone)).toEqual([]);
  await german('Zurück zu den Fragen').tap();
  expect(await mailbag.client.get(`/api/intakes/1/submissions?from=0&count=10`)).toMatchObject({ total: 0 });
});

step('it is sent, and the copies are downloaded in one zip with every answer and the signature in its box', async () => {
  while ((await german('Absenden').count()) === 0) {
    const before = await phone.getByRole('heading', { level: 1 }).textContent();
    await german(/^Weiter/).tap();
    await phone.waitForFunction((last) => document.querySelector('h1')?.textContent !== last, before);
  }
  await phone.getByText('B-17').waitFor();
  expect(await violationsOn(phone)).toEqual([]);
  await german('Absenden').tap();
  await phone.getByText(/^Wir haben Ihre Antworten erhalten. Ihre Nummer ist /).waitFor();
  await phone.getByRole('link', { name: 'Alle als eine Zip-Datei herunterladen' }).waitFor();
  expect(await violationsOn(phone)).toEqual([]);
  const [download] = await Promise.all([
    phone.waitForEvent('download'),
    phone.getByRole('link', { name: 'Alle als eine Zip-Datei herunterladen' }).tap(),
  ]);
  const files = unzipSync(new Uint8Array(await readFile(await download.path())));
  const [mandate, permit] = ['Bank', 'Shed'].map((name) => Object.entries(files).find(([file]) => file.startsWith(name))![1]);
  const texts = await Promise.all([mandate!, permit!].map(async (bytes) => (await readByOther(bytes, 'plot B-17'))[0]!.text));
  for (const text of texts) expect(text).toContain('Ayumi Brandt');
  expect(texts[0]!.replaceAll(' ', '')).toContain('DE89370400440532013000');
  expect(texts[1]).toContain('Green roof');
  await expect(readByOther(mandate!)).rejects.toThrow(/password/i);
  const { templates } = await mailbag.client.get<{
    templates: { fieldList: { name: string; kind: string; widgets: { rect: number[] }[] }[] }[];
  }>('/api/intakes/1');
  const placeOf = (form: number, wanted: (field: { name: string; kind: string }) => boolean): number[] =>
    templates[form]!.fieldList.find(wanted)!.widgets[0]!.rect;
  expect(
    inkIn(
      await pictureOf(mandate!, 0, 2, 'plot B-17'),
      placeOf(0, ({ kind }) => kind === 'signature'),
    ),
  ).toBeGreaterThan(200);
  const second = await pictureOf(permit!, 0, 2, 'plot B-17');
  expect(
    inkIn(
      second,
      placeOf(1, ({ name }) => name === 'signature'),
    ),
  ).toBeGreaterThan(100);
  expect(
    inkIn(
      second,
      placeOf(1, ({ name }) => name === 'signature_date'),
    ),
  ).toBeGreaterThan(20);
});

step('the copies are mailed on to somebody else, once a code has shown that the address is the visitor’s own', async () => {
  await german('Die Kopien mailen lassen').tap();
  await phone.getByLabel('Ihre E-Mail-Adresse').fill('ayumi@example.org');
  await german('Code mailen').tap();
  await phone.getByText(/^Wir haben einen Code an ayumi@example.org gemailt/).waitFor();
  await phone.getByLabel('Der Code').fill('12');
  await phone.getByLabel('Die Kopien mailen an').fill('bank@example.net');
  await german('Kopien mailen').tap();
  await phone.getByRole('alert').getByText('Das ist nicht der Code').waitFor();
  const [letter] = (await office.received()).filter(({ to, subject }) => to === 'ayumi@example.org' && /^\d{6} ist/.test(subject));
  await phone.getByLabel('Der Code').fill(letter!.subject.slice(0, 6));
  await german('Kopien mailen').tap();
  await phone.getByText('Die Kopien sind unterwegs an bank@example.net.').waitFor();
  expect(await violationsOn(phone)).toEqual([]);
  const [sent] = (await office.letters()).filter(({ to }) => to === 'bank@example.net');
  expect(sent!.attachments).toHaveLength(2);
});

step('the office sees the answer with its copies, and the visitor was mailed them', async () => {
  await signInTo(page, mailbag.address, person, 'Intakes');
  await page.getByRole('link', { name: 'Ask for a plot', exact: true }).click();
  await page.getByRole('link', { name: /^Answers / }).click();
  await page.getByRole('table', { name: 'Answers' }).getByText('Ayumi Brandt').first().waitFor();
  await page.getByRole('table', { name: 'Answers' }).getByRole('link', { name: '2', exact: true }).click();
  await page.getByRole('grid', { name: 'Copies' }).getByText('sent').first().waitFor();
  const letters = (await office.letters()).filter(({ to, subject }) => to === 'ayumi@example.org' && subject.startsWith('Your copy'));
  expect(letters.map(({ attachments }) => attachments.length)).toEqual([2]);
});

step('both mails tell of it: the visitor’s how its locked copies open, the office’s what was answered', async () => {
  const mails = await office.letters();
  const [own] = mails.filter(({ to, subject }) => to === 'ayumi@example.org' && subject.startsWith('Your copy'));
  expect(await office.raw(own!.id)).toContain('It opens with the word plot');
  const copy = new Uint8Array(await office.attachment(own!.id, 0));
  await expect(readByOther(copy)).rejects.toThrow(/password/i);
  expect((await readByOther(copy, 'plot B-17'))[0]!.text).toContain('Ayumi Brandt');
  const [notice] = mails.filter(({ to }) => to === 'desk@larkmere.example');
  expect(notice!.attachments.map(({ type }) => type)).toEqual(['application/zip']);
  const { text } = await simpleParser(await office.raw(notice!.id));
  expect(text).toContain('Which plot would you like?: B-17');
});
