import type { Browser, Locator, Page } from 'playwright-core';
import { bankMandate } from '../demo/src/forms/bank-mandate.js';
import { shedPermit } from '../demo/src/forms/shed-permit.js';
import { readByOther } from '../testing/other-reader.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { askForAPlot } from './ask-for-a-plot.js';
import { visitsOn } from './steps.js';

/** Two forms become a page that the office works on until it is published. */
let browser: Browser;
let page: Page;
let faults: string[];
let office: PostOffice;
let templates: number[];
/** The intake of a visit. */
let intake: number;
const mailbag = new RunningMailbag();

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  templates = [];
  for (const [name, bytes] of [
    ['Bank mandate.pdf', bankMandate()],
    ['Shed permit.pdf', shedPermit()],
  ] as const)
    templates.push((await mailbag.client.upload<{ template: { id: number } }>('/api/templates', name, bytes)).template.id);
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Intakes');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
});

/** Each visit has a draft of its own, and begins at its questions. */
async function begin(): Promise<void> {
  ({ id: intake } = await mailbag.client.send<{ id: number }>('POST', '/api/intakes', { name: 'Ask for a plot', templates }));
  await page.goto(`${mailbag.address}/intakes/${intake}/questions`);
  await row('Plot number').waitFor();
}
const visit = visitsOn(() => ({ page, faults }), begin);
const button = (name: string | RegExp, of: Page = page): Locator => of.getByRole('button', { name });
const row = (words: string): Locator =>
  page.getByRole('region', { name: 'Questions' }).getByRole('button', { name: new RegExp(`^${words} (?:fills|not on|put away)`) });
const settings = (words: string): Locator => page.getByRole('group', { name: `Settings of ${words}` });
async function choose(within: Locator, label: RegExp, option: string | RegExp): Promise<void> {
  await within.getByRole('button', { name: label }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}
const saved = (): Promise<void> => page.getByText('Saved', { exact: true }).waitFor();

visit('forms are chosen, and the page is there with its questions', async () => {
  await page.goto(`${mailbag.address}/intakes`);
  await button('New intake').click();
  await page.getByText('Bank mandate').click();
  await page.getByText('Shed permit').click();
  await page.getByLabel('Name of the intake').fill('Ask for a garden');
  await button('Make the page').click();
  await page.getByRole('heading', { name: 'Ask for a garden' }).waitFor();
  await row('Plot number').waitFor();
  await row('IBAN').getByText('fills 1 box on 1 form').waitFor();
  await row('Plot number').getByText('fills 2 boxes on 2 forms').waitFor();
});

visit('a question is worked on in place, and the boxes that it fills are lit on the form', async () => {
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

visit('a question is dragged to another place, and back by undo', async () => {
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

visit('a question is asked of some only, and a circle of conditions is refused with the words of its questions', async () => {
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

visit('the page is seen as a visitor sees it, at the step of the question that is worked on', async () => {
  await row('Greenhouse').click();
  await button('The page').click();
  const frame = page.frameLocator('iframe[title="The page as a visitor sees it"]');
  await frame.getByRole('group', { name: /^Greenhouse/ }).waitFor();
  await row('Plot number').click();
  await frame.getByLabel(/^Plot number/).waitFor();
});

visit('what the office says is said in German beside its own words, and seen on the page', async () => {
  await page.getByRole('link', { name: /^Languages / }).click();
  await choose(page.getByRole('region', { name: 'Languages' }), /Add a language$/, 'German');
  await page.getByText(/^\d+ of \d+ texts not yet in German; visitors read those in English\.$/).waitFor();
  await page.getByLabel('Plot number in German').fill('Welche Parzelle möchten Sie?');
  await page.getByLabel('Twice a year in German').fill('Zweimal im Jahr');
  await page.getByLabel('Plot number in German').focus();
  await page
    .frameLocator('iframe[title="The page as a visitor sees it"]')
    .getByLabel(/^Welche Parzelle möchten Sie\?/)
    .waitFor();
  // The page beside it turned to another step, and whoever types here types on here.
  await page.keyboard.press('End');
  await page.keyboard.type(' Bitte');
  expect(await page.getByLabel('Plot number in German').inputValue()).toBe('Welche Parzelle möchten Sie? Bitte');
  await page.getByLabel('Plot number in German').fill('Welche Parzelle möchten Sie?');
  expect(await page.getByLabel('Twice a year in German').inputValue()).toBe('Zweimal im Jahr');
  await saved();
});

visit('before it is published it is tried with made-up answers, and nobody but oneself is mailed', async () => {
  await button('The page').click();
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
  expect(await mailbag.client.get(`/api/intakes/${intake}/submissions?from=0&count=10`)).toMatchObject({ total: 0 });
  await button('Discard').click();
  await trial.waitFor({ state: 'detached' });
  await button('Back to the page').click();
  await frame.getByText('Robin Made-Up').first().waitFor();
});

visit('the signature gets a second box, drawn on the other form with the date beside it', async () => {
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

visit('two questions become one, and one again by undo', async () => {
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

visit('an answer has to look like an example, and it is said what that is', async () => {
  await row('Plot number').click();
  const plot = settings('Plot number');
  await plot.getByLabel('Looks like').fill('B-17');
  await plot.getByText('Accepted: 1 letter, “-”, 2 digits.').waitFor();
  await plot.getByRole('group', { name: 'Run 3' }).getByLabel('From').fill('1');
  await plot.getByText('Accepted: 1 letter, “-”, 1 to 2 digits.').waitFor();
  await saved();
});

visit('the copies are locked by what was answered, the message tells how to open them, and the office is told of each answer', async () => {
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

visit('it gets a word of its own, which is said to be free while it is typed, and is published', async () => {
  await page.getByRole('link', { name: /^Page / }).click();
  const word = page.getByLabel(/^Address:/);
  await word.fill('in');
  await page.getByText(/“in” cannot be an address/).waitFor();
  await word.fill('plots 2028');
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
  await page.getByRole('link', { name: '/in/plots-2028', exact: true }).waitFor();
});

visit('another packet is published under the same address', async () => {
  const made = await askForAPlot(mailbag.client);
  await page.goto(`${mailbag.address}/mailings/${made.mailingId}/packet`);
  await button('Remove Shed permit from the packet').click();
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.goto(`${mailbag.address}/intakes/${made.id}/questions`);
  await button('Publish changes').click();
  await page.getByText('changes not published yet').waitFor({ state: 'detached' });
  const page2 = (await (
    await fetch(`${mailbag.address}/api/public/intakes/plots-2027`, { headers: { 'X-Mailbag': '1', 'X-Mailbag-Phrase': 'garden gate' } })
  ).json()) as { forms: string[] };
  expect(page2.forms).toEqual(['Bank mandate']);
});
