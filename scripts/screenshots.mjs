import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from 'playwright-core';
import { option, root } from './run.mjs';

/** Takes the pictures of docs/screenshots from a running demo. `--address` of the demo, `--out` folder, `--only` a part of a name. */
const address = option('address', 'http://127.0.0.1:4180');
const out = option('out', join(root, 'docs/screenshots'));
const only = option('only', '');
mkdirSync(out, { recursive: true });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
page.on('pageerror', (error) => console.error('page error', error.message));
page.on('console', (message) => message.type() === 'error' && console.error('console', message.text()));
const drawn = () => page.locator('canvas[data-drawn]').first().waitFor();
const shot = async (name, prepare) => {
  if (!name.includes(only)) return;
  await prepare();
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(out, `${name}.png`) });
  console.log(name);
};
const open = (path) => page.goto(address + path);

await open('/');
await page.getByLabel('E-mail address').waitFor();
await page.getByLabel('E-mail address').fill('marit@larkmere.example');
await page.getByLabel('Password').fill('plots-and-paths');
await page.getByRole('button', { name: 'Sign in' }).click();
await page.getByRole('heading', { name: 'Needs you' }).waitFor();
await shot('desk', () => page.getByRole('heading', { name: 'Just now' }).waitFor());
await shot('template', async () => {
  await open('/templates');
  await page.getByRole('link', { name: 'Tenancy agreement' }).click();
  await drawn();
  await page
    .getByRole('region', { name: 'Fields', exact: true })
    .getByRole('button', { name: /^Concession/ })
    .click();
});
await shot('layout', async () => {
  await open('/templates');
  await page.getByRole('link', { name: 'Plot inspection' }).click();
  await page.getByRole('link', { name: 'Layout', exact: true }).click();
  await drawn();
  await page.getByRole('option', { name: 'Inspected on' }).click();
});
await shot('intakes', async () => {
  await open('/intakes');
  await page.getByRole('link', { name: 'Ask for a plot' }).waitFor();
});
await shot('intake-questions', async () => {
  await open('/intakes');
  await page.getByRole('link', { name: 'Ask for a plot' }).click();
  const questions = page.getByRole('region', { name: 'Questions' });
  await questions.getByRole('button', { name: /^IBAN / }).click();
  await page.locator('[data-field][data-chosen]').first().waitFor();
  await drawn();
});
await shot('source', async () => {
  await open('/sources');
  await page.getByRole('link', { name: 'tenancies.xlsx' }).click();
  await page.getByText('A-01', { exact: true }).waitFor();
});
const mailing = async (part) => {
  await open('/mailings');
  await page.getByRole('link', { name: 'Plot renewals 2027', exact: true }).click();
  await page.getByText('Saved').waitFor();
  await page.getByRole('navigation', { name: 'Parts of the mailing' }).getByRole('link', { name: part }).click();
};
await shot('records', () => mailing(/^Records/));
await shot('map', async () => {
  await mailing(/^Map/);
  for (let step = 0; step < 2; step++) await page.getByRole('button', { name: 'Next record' }).click();
  await page.getByRole('row', { name: /^Water supply at the plot/ }).click();
  await page.getByText(/^Over 480 records/).waitFor();
  await drawn();
});
await shot('contact-sheet', async () => {
  await mailing(/^Map/);
  await page.getByRole('link', { name: 'Contact sheet' }).click();
  await page
    .getByRole('region', { name: 'Contact sheet' })
    .getByRole('status')
    .getByText(/^\d+ copies$/)
    .waitFor();
});
await shot('checks', async () => {
  await mailing(/^Checks/);
  await page
    .getByRole('gridcell', { name: /also the key of row/ })
    .first()
    .waitFor();
});
await shot('output-and-message', async () => {
  await mailing(/^Output/);
  await page.getByRole('article', { name: 'The message as it will be read' }).waitFor();
});
await shot('start', async () => {
  await open('/mailings');
  await page.getByRole('link', { name: 'Plot renewals 2027', exact: true }).click();
  await page.getByRole('link', { name: 'Start a batch' }).click();
  await page.getByRole('radio', { name: /everybody/i }).waitFor();
  await page.waitForTimeout(1500);
});
await shot('batch', async () => {
  // The one in which something of everything happened.
  const batches = await (await page.request.get(`${address}/api/batches`)).json();
  await open(`/batches/${batches.find(({ mailingName }) => mailingName === 'Shed permits, early birds').id}`);
  await page.getByRole('grid', { name: 'Copies' }).waitFor();
});
await shot('ledger', async () => {
  await open('/ledger?state=bounced');
  await page.getByRole('row').nth(1).click();
  await page.getByRole('heading', { name: 'Its story' }).waitFor();
  await page
    .getByRole('button', { name: 'Any state' })
    .waitFor({ timeout: 200 })
    .catch(() => undefined);
});
await shot('paper', async () => {
  await open('/paper');
  await page.getByRole('img', { name: /of the print run/ }).waitFor();
});
await shot('safety', async () => {
  await open('/settings/safety');
  // Where the folder lies on this machine is nobody's business.
  const place = page.getByText(/They lie in/);
  await place.evaluate((element) => (element.innerHTML = element.innerHTML.replace(/They lie in \S+/, 'They lie in /srv/mailbag/backups')));
});
// Last, since it makes a rule that the others do not know.
await shot('rule', async () => {
  await mailing(/^Map/);
  const choose = async (name, option) => {
    await page.getByRole('button', { name }).first().click();
    await page.getByRole('option', { name: option }).first().click();
  };
  await page.getByRole('row', { name: /^Remarks of the office/ }).first().click(); // prettier-ignore
  await choose(/Kind of rule$/, /^cases/);
  await choose(/Case 1: What is compared: column$/, /^Shed/);
  await choose(/Case 1: Test$/, /./);
  await page.getByRole('textbox', { name: 'Case 1: Values' }).fill('yes');
  await choose(/Case 1, then: kind of rule$/, /^fixed text/);
  await page.getByRole('textbox', { name: 'Case 1, then: Fixed text' }).fill('The shed stays below 2.20 m.');
  await choose(/Otherwise: kind of rule$/, /^a column/);
  await choose(/Otherwise: column$/, /^Remarks/);
  await page.getByRole('button', { name: /^The shed stays below 2.20 m.: \d+ of 480/ }).waitFor();
  // The rule and below it what it gives over all records.
  await page.getByText(/^Over 480 records/).evaluate((element) => {
    const editor = element.closest('.editor');
    editor.previousElementSibling.scrollIntoView({ block: 'start' });
    for (let box = editor.parentElement; box; box = box.parentElement) if (box.scrollTop > 0) box.scrollTop -= 62;
  });
  await drawn();
});
// The page of an intake, as somebody with a phone meets it.
const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, locale: 'en-GB', hasTouch: true, isMobile: true });
const onPhone = async (name, prepare) => {
  if (!name.includes(only)) return;
  await prepare();
  await phone.waitForTimeout(700);
  await phone.screenshot({ path: join(out, `${name}.png`) });
  console.log(name);
};
await onPhone('intake-phone', async () => {
  await phone.goto(`${address}/in/ask-for-a-plot`);
  await phone.getByRole('button', { name: 'Start' }).tap();
  await phone.getByLabel(/^Which plot/).fill('B-17');
  await phone.getByLabel(/^Your first name/).fill('Ayumi Brandt');
  await phone.getByLabel(/^E-mail/).fill('ayumi@');
  await phone.getByLabel(/^Which plot/).focus();
  await phone.getByText('This is not an e-mail address.').waitFor();
});
await onPhone('intake-form', async () => {
  await phone.goto(`${address}/in/ask-for-a-plot`);
  const see = phone.getByRole('button', { name: 'See the form as it is filled so far' });
  const start = phone.getByRole('button', { name: 'Start' });
  await see.or(start).waitFor();
  if (await start.isVisible()) await start.tap();
  await see.tap();
  await phone.getByRole('img', { name: 'Bank mandate 1' }).waitFor();
});
await browser.close();
