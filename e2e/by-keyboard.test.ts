import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { shedPermit } from '../demo/src/forms/shed-permit.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import { readByOther } from '../testing/other-reader.js';
import { openBrowser, openPage } from './browser.js';
import { KeyboardUser } from './keyboard.js';
import { storyOn } from './steps.js';

/** The main job without a mouse (WCAG 2.2, 2.1.1 Keyboard), and how many stops that takes. */
let office: PostOffice;
let browser: Browser;
let page: Page;
let faults: string[];
let user: KeyboardUser;
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-keyboard-'));

beforeAll(async () => {
  writeFileSync(join(folder, 'permit.pdf'), shedPermit());
  writeFileSync(
    join(folder, 'people.csv'),
    'Plot number,Name of the tenant,E-mail\nB-17,Ayumi Brandt,ayumi@example.org\nC-02,Tomasz Wrona,tomasz@example.org\n',
  );
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  user = new KeyboardUser(page);
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
  rmSync(folder, { recursive: true, force: true });
});
const step = storyOn(() => ({ page, faults }), 'the main job with keys alone');
const button = (name: string | RegExp) => page.getByRole('button', { name });
const link = (name: string | RegExp) => page.getByRole('link', { name });
async function chooseFile(name: string, file: string): Promise<void> {
  await user.to(button(name), name);
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.keyboard.press('Enter')]);
  await chooser.setFiles(join(folder, file));
}

step('signing in and adding a template', async () => {
  await page.goto(mailbag.address);
  await user.type(page.getByLabel('E-mail'), 'E-mail', person.email);
  await user.type(page.getByLabel('Password'), 'Password', person.password);
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Desk', level: 1 }).waitFor();
  await user.find('Templates');
  await page.getByRole('heading', { name: 'Templates', level: 1 }).waitFor();
  await chooseFile('Upload a template', 'permit.pdf');
  await page.getByRole('heading', { name: 'permit', level: 1 }).waitFor();
});

step('a mailing with its packet and its records', async () => {
  await user.find('Mailings');
  await page.getByRole('heading', { name: 'Mailings', level: 1 }).waitFor();
  await user.type(page.getByLabel('Name of the new mailing'), 'Name of the new mailing', 'Permits');
  await page.keyboard.press('Enter');
  await user.press(button('Add permit'), 'Add permit');
  await button('Remove permit from the packet').waitFor();
  await user.nextPart();
  await chooseFile('Choose a sheet', 'people.csv');
  await user.press(button('Read the records'), 'Read the records');
  await page.getByText('Ayumi Brandt').waitFor();
});

step('the map, the checks and the start', async () => {
  await user.nextPart();
  await user.press(button(/^Accept \d suggestion/), 'Accept suggestions');
  await page.getByText('Saved', { exact: true }).waitFor();
  await user.nextPart();
  await page.getByText('of 2 can run').waitFor();
  await user.press(link('Start a batch'), 'Start a batch');
  await user.press(button('Make and mail 2 copies'), 'Make and mail 2 copies');
  await page.getByText(/^Finished/).waitFor();
});

step('the copies are as another reader should find them, and the way to them was short', async () => {
  const letters = await office.letters();
  expect(letters.map(({ to }) => to).sort()).toEqual(['ayumi@example.org', 'tomasz@example.org']);
  const mail = letters.find(({ to }) => to === 'ayumi@example.org')!;
  const text = (await readByOther(await office.attachment(mail.id, 0))).map((one) => one.text).join(' ');
  expect(text).toContain('Ayumi Brandt');
  // Forwards from where one stands after each action, beside the fewest stops that there are.
  expect({ stops: user.stops, shortest: user.shortest, isShort: user.stops <= 1.5 * user.shortest }).toMatchObject({ isShort: true });
  process.stdout.write(`By keyboard alone: ${user.stops} stops, ${user.shortest} by the shortest way.\n`);
});
