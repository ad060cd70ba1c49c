import { readFile } from 'node:fs/promises';
import { unzipSync } from 'fflate';
import { simpleParser } from 'mailparser';
import type { Browser, BrowserContext, Locator, Page } from 'playwright-core';
import { bankMandate } from '../demo/src/forms/bank-mandate.js';
import { shedPermit } from '../demo/src/forms/shed-permit.js';
import { violationsOn } from '../testing/axe.js';
import { readByOther } from '../testing/other-reader.js';
import { PATIENCE } from '../testing/patience.js';
import { inkIn, pictureOf } from '../testing/picture.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { storyOn } from './steps.js';

/** Two forms become a page; somebody answers it on a phone, in German, and gets their copies. */
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
  for (const [name, bytes] of [
    ['Bank mandate.pdf', bankMandate()],
    ['Shed permit.pdf', shedPermit()],
  ] as const)
    // prettier-ignore
    await mailbag.client.upload('/api/templates', name, bytes);
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Intakes');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
});

const step = storyOn(() => ({ page, faults }));
const button = (name: string | RegExp, of: Page = page): Locator => of.getByRole('button', { name });
const row = (words: string): Locator =>
  page.getByRole('region', { name: 'Questions' }).getByRole('button', { name: new RegExp(`^${words} (?:fills|not on|put away)`) });
const settings = (words: string): Locator => page.getByRole('group', { name: `Settings of ${words}` });
async function choose(within: Locator, label: RegExp, option: string | RegExp): Promise<void> {
  await within.getByRole('button', { name: label }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}
const saved = (): Promise<void> => page.getByText('Saved', { exact: true }).waitFor();

step('forms are chosen, and the page is there with its questions', async () => {
  await page.getByText('Bank mandate').click();
  await page.getByText('Shed permit').click();
  await page.getByLabel('Name of the intake').fill('Ask for a plot');
  await button('Make the page').click();
  await page.getByRole('heading', { name: 'Ask for a plot' }).waitFor();
  await row('Plot number').waitFor();
  await row('IBAN').getByText('fills 1 box on 1 form').waitFor();
  await row('Plot number').getByText('fills 2 boxes on 2 forms').waitFor();
});

step('a question is worked on in place, and the boxes that it fills are lit on the form', async () => {
  await row('Plot number').click();
  await settings('Plot number').getByLabel('Words').fill('Which plot would you like?');
  await page.locator('[data-field="topmostSubform[0].Page1[0].f1_01[0]"][data-chosen]').waitFor();
  // A box of the page leads to its question.
  await page.locator('[data-field="topmostSubform[0].Page1[0].f1_04[0]"]').click();
  await settings('IBAN').waitFor();
  await row('Name of the bank').click();
  await settings('Name of the bank').getByRole('button', { name: 'Put away' }).click();
  await button('2 put away').waitFor();
  await saved();
});

step('a question is dragged to another place, and back by undo', async () => {
  const stand = (first: string, second: string) =>
    page.waitForFunction(
      (wanted) => {
        const words = [...document.querySelectorAll('[aria-label="Questions"] button > b')].map(({ textContent }) => textContent ?? '');
        return words.indexOf(wanted[0]!) < words.indexOf(wanted[1]!);
      },
      [first, second],
    );
  // Once the list stands still: what was chosen before has just gone.
  await row('IBAN').locator('..').locator('[data-grip]').hover();
  await page.mouse.down();
  for (const y of [40, 20, 10]) await row('Account holder').hover({ position: { x: 60, y }, force: true });
  await page.mouse.up();
  await stand('IBAN', 'Account holder');
  await saved();
  await button(/^Undo/).click();
  await stand('Account holder', 'IBAN');
});

step('a question is asked of some only, and a circle of conditions is refused with the words of its questions', async () => {
  await row('Roof').click();
  await button('Ask Roof only when …').click();
  const roof = page.getByRole('group', { name: 'When Roof is asked' });
  await choose(roof, /Question$/, 'Greenhouse');
  await row('Greenhouse').click();
  await button('Ask Greenhouse only when …').click();
  await choose(page.getByRole('group', { name: 'When Greenhouse is asked' }), /Question$/, 'Roof');
  await saved();
  await button('Publish').click();
  await page
    .getByText(/wait for one another.*“Greenhouse” → “Roof” → “Greenhouse”|wait for one another.*“Roof” → “Greenhouse” → “Roof”/)
    .waitFor();
  await settings('Greenhouse').getByRole('button', { name: 'Remove this condition' }).click();
  // What is left stands in the picture of what hangs on what, from where it is chosen.
  await button('What depends on what').click();
  const picture = page.getByRole('list', { name: 'What depends on what' });
  await picture.getByRole('button', { name: /^Roof when Greenhouse is/ }).click();
  await settings('Roof').waitFor();
  expect(await picture.getByRole('button', { name: /^IBAN/ }).count()).toBe(0);
  await picture.getByRole('button', { name: 'Greenhouse', exact: true }).click();
  await settings('Greenhouse').waitFor();
});

step('the page is seen as a visitor sees it, at the step of the question that is worked on', async () => {
  await button('The page').click();
  const frame = page.frameLocator('iframe[title="The page as a visitor sees it"]');
  await frame.getByRole('group', { name: /^Greenhouse/ }).waitFor();
  await row('Which plot would you like\\?').click();
  await frame.getByLabel(/^Which plot would you like\?/).waitFor();
});

step('what the office says is said in German beside its own words, and seen on the page', async () => {
  await page.getByRole('link', { name: /^Languages / }).click();
  await choose(page.getByRole('region', { name: 'Languages' }), /Add a language$/, 'German');
  await page.getByText(/^\d+ of \d+ texts not yet in German; visitors read those in English\.$/).waitFor();
  await page.getByLabel('Which plot would you like? in German').fill('Welche Parzelle möchten Sie?');
  await page.getByLabel('Twice a year in German').fill('Zweimal im Jahr');
  await page.getByLabel('Which plot would you like? in German').focus();
  await page
    .frameLocator('iframe[title="The page as a visitor sees it"]')
    .getByLabel(/^Welche Parzelle möchten Sie\?/)
    .waitFor();
  // The page beside it turned to another step, and whoever types here types on here.
  await page.keyboard.press('End');
  await page.keyboard.type(' Bitte');
  expect(await page.getByLabel('Which plot would you like? in German').inputValue()).toBe('Welche Parzelle möchten Sie? Bitte');
  await page.getByLabel('Which plot would you like? in German').fill('Welche Parzelle möchten Sie?');
  expect(await page.getByLabel('Twice a year in German').inputValue()).toBe('Zweimal im Jahr');
  await saved();
});

step('before it is published it is tried with made-up answers, and nobody but oneself is mailed', async () => {
  await button('Made-up answers').click();
  const frame = page.frameLocator('iframe[title="The page as a visitor sees it"]');
  await frame.getByText('Robin Made-Up').first().waitFor();
  await button('Try it').click();
  await button('Make and mail to me').click();
  const trial = page.getByRole('region', { name: 'Trial run' });
  await trial.getByText(`1 message went to ${person.email}.`).waitFor();
  expect(await trial.getByRole('link', { name: /\.pdf/ }).count()).toBe(2);
  await page.getByRole('img', { name: 'Page 1 of Bank mandate' }).waitFor();
  const letters = await office.letters();
  expect(letters.map(({ to, subject, attachments }) => [to, subject, attachments.length])).toEqual([
    [person.email, 'Trial: Your copy: Ask for a plot', 2],
  ]);
  // The answers and the drawn signature stand on the copy, as another reader sees it.
  const made = new Uint8Array(await office.attachment(letters[0]!.id, 0));
  expect((await readByOther(made))[0]!.text).toContain('Robin Made-Up');
  expect(await mailbag.client.get('/api/intakes/1/submissions?from=0&count=10')).toMatchObject({ total: 0 });
  await button('Discard').click();
  await trial.waitFor({ state: 'detached' });
  await button('Back to the page').click();
  await frame.getByText('Robin Made-Up').first().waitFor();
});

step('the signature gets a second box, drawn on the other form with the date beside it', async () => {
  await page.getByRole('link', { name: /^Questions / }).click();
  await row('Signature of the account holder').click();
  await button('Draw a box for it').click();
  await choose(page.getByRole('region', { name: 'The form' }), /Form$/, 'Shed permit');
  const over = button(/^Draw the box on page 1/);
  const { width, height } = (await over.boundingBox())!;
  await over.click({ position: { x: width * 0.3, y: height * 0.86 } });
  await page.getByRole('switch', { name: 'With the date beside it' }).click({ force: true });
  await button('Put it there').click();
  const stands = settings('Signature of the account holder').getByRole('group', { name: 'Where it stands' });
  await stands.getByText('Shed permit, page 1').waitFor();
  expect(await stands.getByRole('button', { name: /^Not in / }).count()).toBe(2);
});

step('two questions become one, and one again by undo', async () => {
  await row('Account holder').click();
  await button('Join with another …').click();
  const dialog = page.getByRole('dialog', { name: 'Join “Account holder” with another question' });
  await choose(dialog, /Of the one answer$/, 'The last word is “IBAN”, the rest “Account holder”');
  await dialog.getByRole('button', { name: 'Join', exact: true }).click();
  await row('Account holder, IBAN').getByText('fills 2 boxes on 1 form').waitFor();
  await button('Ask separately again').click();
  await row('Account holder').waitFor();
  await row('IBAN').waitFor();
  await saved();
});

step('an answer has to look like an example, and it is said what that is', async () => {
  await row('Which plot would you like\\?').click();
  const plot = settings('Which plot would you like?');
  await plot.getByLabel('Looks like').fill('B-17');
  await plot.getByText('Accepted: 1 letter, “-”, 2 digits.').waitFor();
  await plot.getByRole('group', { name: 'Run 3' }).getByLabel('From').fill('1');
  await plot.getByText('Accepted: 1 letter, “-”, 1 to 2 digits.').waitFor();
  await saved();
});

step('the copies are locked by what was answered, the message tells how to open them, and the office is told of each answer', async () => {
  await page.getByRole('link', { name: /^After submitting / }).click();
  const message = page.getByRole('region', { name: 'Message to the visitor' });
  await message.getByLabel('Password that opens a copy').fill('plot {{ plot_number }}');
  await message
    .getByLabel('Sentence that tells the recipient how to open it')
    .fill('It opens with the word plot, a space and your plot number.');
  await message.getByText('Message: Saved').waitFor();
  await page.getByRole('switch', { name: 'Tell the office of each answer by mail' }).click({ force: true });
  await page.getByLabel('To', { exact: true }).fill('desk@larkmere.example');
  await choose(page.getByRole('group', { name: 'Notice to the office' }), /Copies in the notice$/, /^one zip/);
  await page.getByText('Saved', { exact: true }).first().waitFor();
});

step('it gets a word of its own, which is said to be free while it is typed, and is published', async () => {
  await page.getByRole('link', { name: /^Page / }).click();
  const word = page.getByLabel(/^Address:/);
  await word.fill('in');
  await page.getByText(/“in” cannot be an address/).waitFor();
  await word.fill('plots 2027');
  await page.getByText('This word is available.').waitFor();
  await button('Use this word').click();
  await page.getByRole('switch', { name: 'Show the form’s first page before the first question' }).click({ force: true });
  await page
    .frameLocator('iframe[title="The page as a visitor sees it"]')
    .getByRole('img', { name: 'The first page of “Bank mandate”' })
    .waitFor();
  await page.getByRole('textbox', { name: 'Before the first question' }).fill('Have your bank card at hand.');
  await page.getByLabel('Pass phrase').fill('garden gate');
  await saved();
  await button('Publish').click();
  await page.getByText('published', { exact: true }).waitFor();
  await page.getByRole('link', { name: '/in/plots-2027', exact: true }).waitFor();
});

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

step('another packet is published under the same address', async () => {
  await page.goto(`${mailbag.address}/mailings/1/packet`);
  await button('Remove Shed permit from the packet').click();
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.goto(`${mailbag.address}/intakes/1/questions`);
  await button('Publish changes').click();
  await page.getByText('changes not published yet').waitFor({ state: 'detached' });
  const page2 = (await (
    await fetch(`${mailbag.address}/api/public/intakes/plots-2027`, { headers: { 'X-Mailbag': '1', 'X-Mailbag-Phrase': 'garden gate' } })
  ).json()) as { forms: string[] };
  expect(page2.forms).toEqual(['Bank mandate']);
});
