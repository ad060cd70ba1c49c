import type { Browser, Locator, Page } from 'playwright-core';
import { startBatch } from '../demo/src/start-batch.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import { smallMailing } from '../testing/small-mailing.js';
import { openBrowser, openPage } from './browser.js';
import { visitsOn } from './steps.js';

/** Starting a batch says who: nobody gets a second copy without a word, whatever is clicked twice. */
let office: PostOffice;
let browser: Browser;
let page: Page;
let faults: string[];
let mailing: number;
/** Of the addresses of the mailing: there is one for each visit. */
let domain: string;
let visits = 0;
const mailbag = new RunningMailbag();

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signIn(page);
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
});

/** A mailing of twenty, some of whom have a semicolon behind their address. */
async function permits(wrong: number): Promise<void> {
  domain = `m${++visits}.example.org`;
  const rows = Array.from({ length: 20 }, (_, at): [string, string, string, string] => [
    `P-${at + 1}`,
    `Tenant ${at + 1}`,
    `p${at + 1}@${domain}${at < wrong ? ';' : ''}`,
    'yes',
  ]);
  ({ mailing } = await smallMailing(mailbag.client, rows, { folder: `start-${visits}` }));
  await mailbag.client.until<{ current: boolean }>(`/api/mailings/${mailing}/checks`, ({ current }) => current);
}
/** All that can run has been sent. */
async function sent(): Promise<void> {
  const { id } = await startBatch<{ id: number }>(mailbag.client, mailing);
  await mailbag.client.until<{ state: string; counts: Record<string, number> }>(
    `/api/batches/${id}`,
    ({ state, counts }) => state === 'done' && !counts.queued && !counts.sending && !counts.made,
  );
}
const visit = visitsOn(
  () => ({ page, faults }),
  () => permits(9),
);
const toStart = (): Promise<unknown> => page.goto(`${mailbag.address}/mailings/${mailing}/start`);
const button = (name: string | RegExp, within: Page = page): Locator => within.getByRole('button', { name });
async function signIn(on: Page): Promise<void> {
  await on.goto(mailbag.address);
  await on.getByLabel('E-mail address').fill(person.email);
  await on.getByLabel('Password', { exact: true }).fill(person.password);
  await button('Sign in', on).click();
  await on.getByRole('navigation').first().waitFor();
}
/** The line of a number in the start screen. */
const line = (text: string, on: Page = page): Locator => on.getByRole('button', { name: new RegExp(`^[\\d,]+ ${text}$`) });
const isTrial = ({ subject }: { subject: string }): boolean => subject.startsWith('Trial: ');
/** Who of the mailing was mailed to. */
const letters = async (): Promise<string[]> => (await office.letters()).map(({ to }) => to).filter((to) => to.endsWith(`@${domain}`)).sort(); // prettier-ignore

visit('before a batch: who gets what, who does not and why, the fields without a rule, and the first message', async () => {
  await page.goto(`${mailbag.address}/mailings/${mailing}/map`);
  await page.getByRole('link', { name: 'Start a batch' }).click();
  await line('recipients').waitFor();
  expect(await line('recipients').innerText()).toMatch(/^11/);
  expect(await line('messages').innerText()).toMatch(/^11/);
  await line('are held back by a stop of the checks').click();
  await page.getByRole('row', { name: /^P-1 / }).waitFor();
  expect(await page.getByRole('row').count()).toBe(9);
  await page.getByText(/^\d+ fields have no rule and stay as the form has them$/).waitFor();
  await page.getByText('Plot P-10').waitFor();
  await page.getByText(/^\d+ KB in all, made in /).waitFor();
});

visit('a trial run is opened, mailed to oneself alone, and leaves no trace once it is thrown away', async () => {
  await toStart();
  await page.getByRole('link', { name: 'Trial run first' }).click();
  await page
    .getByRole('region', { name: 'Contact sheet' })
    .getByText(/^\d+ copies$/)
    .waitFor();
  await button('Trial run …').click();
  await page.getByRole('dialog', { name: /^Trial run of \d+ records/ }).waitFor();
  await page.getByText(`Mail them too, to ${person.email} alone`).click();
  await button('Make them').click();
  const trial = page.getByRole('region', { name: 'Trial run' });
  await trial.getByText(/^\d+ copies of \d+ records, not in the ledger\. \d+ messages went to /).waitFor();
  const links = trial.getByRole('link', { name: /^P-\d+\.pdf/ });
  const href = await links.first().getAttribute('href');
  const file = await page.request.get(`${mailbag.address}${href}`);
  expect([file.status(), (await file.body()).subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
  const mails = (await office.letters()).filter(isTrial);
  expect(mails.map(({ to }) => to)).toEqual(Array.from({ length: await links.count() }, () => person.email));
  expect(await letters()).toEqual([]);
  await button('Discard').click();
  await trial.waitFor({ state: 'detached' });
  expect((await page.request.get(`${mailbag.address}${href}`)).status()).toBe(404);
  // The ledger knows nothing of it.
  expect((await mailbag.client.get<{ total: number }>(`/api/copies/counts?mailing=${mailing}`)).total).toBe(0);
});

visit('what was looked at is begun, and nobody who was not named gets mail', async () => {
  await toStart();
  await button('Make and mail 11 copies').click();
  await page.getByRole('heading', { name: /^Batch \d+/ }).waitFor();
  await page.getByRole('link', { name: 'sent 11' }).waitFor();
  expect(await letters()).toEqual(Array.from({ length: 11 }, (_, at) => `p${at + 10}@${domain}`).sort());
});

visit('nine records that were mended run alone, and nobody else gets mail', async () => {
  await sent();
  await page.goto(`${mailbag.address}/mailings/${mailing}/checks`);
  await button(/^Not an e-mail address/).click();
  await button('Fix all 9').click();
  await page
    .getByRole('link', { name: /^Checks/ })
    .getByText('0 stop')
    .waitFor();
  await page.getByRole('link', { name: 'Start a batch' }).click();
  await line('recipients').waitFor();
  expect(await line('recipients').innerText()).toMatch(/^9/);
  await line('have a copy already').click();
  await page.getByRole('row', { name: /^P-20 / }).waitFor();
  await button('Make and mail 9 copies').click();
  await page.getByRole('heading', { name: /^Batch \d+/ }).waitFor();
  await page.getByRole('link', { name: 'sent 9' }).waitFor();
  expect(await letters()).toEqual(Array.from({ length: 20 }, (_, at) => `p${at + 1}@${domain}`).sort());
});

visit('who has a copy already gets another one only after the number was typed', async () => {
  await permits(0);
  await sent();
  await toStart();
  await page.getByText('Nobody is left with this choice.').waitFor();
  await page
    .getByText(/^Everybody/)
    .first()
    .click();
  await line('of them have a copy already and get another').waitFor();
  const go = button('Make and mail 20 copies');
  await go.waitFor();
  expect(await go.isDisabled()).toBe(true);
  await page.getByLabel('Type 20 to send to people who have a copy already').fill('19');
  expect(await go.isDisabled()).toBe(true);
  // Leaving it starts nothing.
  await page
    .getByText(/^Those whose values changed/)
    .first()
    .click();
  await page.getByText('Nobody is left with this choice.').waitFor();
  expect(await letters()).toHaveLength(20);
});

visit('a selection by what the records hold runs alone', async () => {
  await permits(0);
  await sent();
  await toStart();
  await page
    .getByText(/^A selection/)
    .first()
    .click();
  await page.getByText('Choose records above.').waitFor();
  await page.getByLabel('Find records').fill('Tenant 7');
  await page.getByLabel('Choose P-7').check();
  await line('recipient').waitFor();
  await line('of them has a copy already and gets another').waitFor();
  expect(await line('recipient').innerText()).toMatch(/^1\b/);
  await button('Make and mail 1 copy').click();
  await page.getByRole('heading', { name: /^Batch \d+/ }).waitFor();
  await page.getByRole('link', { name: 'sent 1' }).waitFor();
  expect((await letters()).filter((to) => to === `p7@${domain}`)).toHaveLength(2);
  // The newer copy leads to the one that it replaces, and that one back.
  await page.getByRole('link', { name: 'sent 1' }).click();
  await page.getByRole('row', { name: /Tenant 7/ }).click();
  const copy = page.getByRole('complementary', { name: 'Copy' });
  const replaced = copy.getByText(/^Replaces .* No value of the record had changed\.$/);
  await replaced.waitFor();
  await replaced.getByRole('link').click();
  await copy.getByText(/^Replaced by /).waitFor();
});

visit('two windows that start the same batch at once start it once, and the second is told why', async () => {
  const rows = Array.from({ length: 6 }, (_, at): [string, string, string, string] => [`W-${at}`, `Two ${at}`, `w${at}@example.org`, 'no']);
  const other = await smallMailing(mailbag.client, rows, { folder: 'two' });
  const second = await openPage(browser);
  await signIn(second.page);
  const windows = [page, second.page];
  for (const one of windows) {
    await one.goto(`${mailbag.address}/mailings/${other.mailing}/start`);
    await line('recipients', one).waitFor();
  }
  await Promise.all(windows.map((one) => button('Make and mail 6 copies', one).click()));
  const outcomes = await Promise.all(
    windows.map((one) =>
      Promise.race([
        one
          .getByRole('heading', { name: /^Batch \d+/ })
          .waitFor()
          .then(() => 'started'),
        one
          .getByText(/has changed since you looked, or another batch was started/)
          .waitFor()
          .then(() => 'told'),
      ]),
    ),
  );
  expect(outcomes.sort()).toEqual(['started', 'told']);
  const begun = (await mailbag.client.get<{ id: number; mailingId: number }[]>('/api/batches')).filter(
    (one) => one.mailingId === other.mailing,
  );
  expect(begun).toHaveLength(1);
  await mailbag.client.until<{ counts: Record<string, number> }>(`/api/batches/${begun[0]!.id}`, ({ counts }) => counts.sent === 6);
  expect((await office.letters()).filter(({ to }) => to.startsWith('w'))).toHaveLength(6);
  expect(second.faults).toEqual([]);
});
