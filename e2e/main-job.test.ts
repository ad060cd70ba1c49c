import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Locator, Page } from 'playwright-core';
import ExcelJS from 'exceljs';
import { readByOther } from '../testing/other-reader.js';
import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import { drawnAgain, openBrowser, openPage, sheetRow, timesDrawn } from './browser.js';
import { storyOn } from './steps.js';
import { membershipForm } from './membership-form.js';

const people = [
  ['0017', 'Ayumi', 'Brandt-Ó Súilleabháin', 'ayumi@example.org', 'Alto', 'yes'],
  ['0018', 'Tomasz', 'Łąkowski', 'tomasz@example.org', 'Bass', 'no'],
  ['0019', 'Δάφνη', 'Ρήγα', 'dafni@example.net', 'Soprano', 'yes'],
  ['0020', 'Petra', 'Quist', 'unknown.petra@example.net', 'Alto', 'no'],
  ['0021', 'Wilf', 'Ashdown', 'wilf at example.org', 'Tenor', 'yes'],
  ['0022', 'Malia', 'Keawe', 'malia@example.org', 'Baritone', 'no'],
] as const;

let office: PostOffice;
let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-files-'));

beforeAll(async () => {
  writeFileSync(join(folder, 'membership.pdf'), await membershipForm());
  writeFileSync(join(folder, 'letter.pdf'), 'Dear Sir or Madam');
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Members');
  sheet.addRow(['Choir of Nether Larkmere']);
  sheet.addRow([]);
  sheet.addRow(['Member number', 'First name', 'Surname', 'E-mail', 'Voice', 'Pays by debit']);
  for (const person of people) sheet.addRow([...person]);
  await book.xlsx.writeFile(join(folder, 'members.xlsx'));
  office = await PostOffice.open();
  await mailbag.start();
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
  rmSync(folder, { recursive: true, force: true });
});

const step = storyOn(() => ({ page, faults }), 'the main job, from an empty Mailbag to copies that have arrived');
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name });
const part = (name: RegExp): Promise<void> =>
  page.getByRole('navigation', { name: 'Parts of the mailing' }).getByRole('link', { name }).click();
const chooseFile = async (name: string, file: string): Promise<void> => {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button(name).click()]);
  await chooser.setFiles(join(folder, file));
};
const row = (label: string): Locator => sheetRow(page, label);

step('a first visitor sets up Mailbag and enters the mail server', async () => {
  await page.goto(mailbag.address);
  await page.getByRole('heading', { name: 'Set up Mailbag' }).waitFor();
  await page.getByLabel('Your name', { exact: true }).fill('Marit Odum');
  await page.getByLabel('E-mail address', { exact: true }).fill('marit@larkmere.example');
  await page.getByLabel('Password', { exact: true }).fill('short');
  await button('Set up and sign in').click();
  await page.getByText('A password has at least 10 characters.').waitFor();
  await page.getByLabel('Password', { exact: true }).fill('plots-and-paths');
  await button('Set up and sign in').click();
  await page.getByRole('heading', { name: 'Needs you' }).waitFor();
  await page.getByRole('link', { name: 'Set it up' }).click();
  await button('Add a mail server').first().click();
  await page.getByLabel('Name', { exact: true }).fill('Choir mail');
  await page.getByLabel('Host', { exact: true }).fill('127.0.0.1');
  await page.getByLabel('Port', { exact: true }).fill(String(office.smtp));
  await button('Test the server').click();
  await page.getByText('The server may not offer STARTTLS here.').waitFor();
  await button(/Security/).click();
  await page.getByRole('option', { name: /Where offered/ }).click();
  await button('Test the server').click();
  await page.getByText('127.0.0.1 answered.').waitFor();
  await button('Save').click();
  await page.getByText(`127.0.0.1:${office.smtp}`).waitFor();
  await button('Add a sender').click();
  await page.getByLabel('Display name', { exact: true }).fill('Choir of Nether Larkmere');
  await page.getByLabel('Address', { exact: true }).fill('choir@larkmere.example');
  await button('Save').click();
  await page.getByText('not confirmed').waitFor();
  await button('Mail the code').click();
  const entry = page.getByLabel('Code for choir@larkmere.example');
  await entry.waitFor();
  await entry.fill('000000');
  await button('Confirm').click();
  await page.getByText('That code is wrong. 4 more attempts are left.').waitFor();
  await entry.fill(await office.code('choir@larkmere.example'));
  await button('Confirm').click();
  await page.getByText('confirmed', { exact: true }).waitFor();
});

step('a file that is no form is refused in a sentence; a real one shows its fields on its pages', async () => {
  await page.getByRole('link', { name: 'Templates' }).click();
  await page.getByRole('heading', { name: 'No template yet' }).waitFor();
  await chooseFile('Upload a template', 'letter.pdf');
  await page.getByText('letter.pdf is not a PDF.').waitFor();
  await chooseFile('Upload a template', 'membership.pdf');
  await page.getByRole('heading', { name: 'membership', exact: true }).waitFor();
  const fields = page.getByRole('region', { name: 'Fields', exact: true });
  await button(/^Name/, fields).click();
  await page.getByText('member_name', { exact: true }).first().waitFor();
  // From the page to the list.
  await page.locator('canvas[data-drawn]').first().waitFor();
  await page.locator('[data-field="voice"]').click();
  await fields.getByText('Soprano · Alto · Tenor · Bass').waitFor();
});

step('packet and records come together in a mailing', async () => {
  await page.getByRole('link', { name: 'Mailings' }).click();
  await page.getByLabel('Name of the new mailing').fill('Members 2027');
  await button('Begin a mailing').click();
  await button('Add membership').click();
  await button('Remove membership from the packet').waitFor();
  await part(/^Records/);
  await chooseFile('Choose a sheet', 'members.xlsx');
  await page.getByText('The headings stand in row 3.').waitFor();
  await button('Read the records').click();
  await page.getByText('0017').waitFor();
  await page.getByRole('link', { name: /Records 6 · members\.xlsx/ }).waitFor();
});

step('fields are matched by suggestion and by hand, with the filled page following each change', async () => {
  await part(/^Map/);
  await page.getByText('1 of 6').waitFor();
  await page.locator('canvas[data-drawn]').first().waitFor();
  let before = await timesDrawn(page);
  await button(/^Accept \d suggestion/).click();
  await drawnAgain(page, before);
  const name = row('Name');
  await name.getByText('Ayumi Brandt-Ó Súilleabháin').waitFor();

  const receipt = row('Receipt for');
  if ((await receipt.getByText('nothing yet').count()) > 0) {
    await receipt.click();
    before = await timesDrawn(page);
    await button(/Kind of rule$/).click();
    await page.getByRole('option', { name: /^composed text(?! with)/ }).click();
    await button(/Column, part 1$/).click();
    await page.getByRole('option', { name: /^First name/ }).click();
    await button(/Add a column$/).click();
    await page.getByRole('option', { name: /^Surname/ }).click();
    await drawnAgain(page, before);
  }
  await receipt.getByText('Ayumi Brandt-Ó Súilleabháin').waitFor();
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.getByRole('link', { name: /Map 5 of 5 filled/ }).waitFor();

  // A step can be undone and done again.
  await button('Undo').click();
  await page.getByRole('link', { name: /Map [0-4] of 5 filled/ }).waitFor();
  await button('Redo').click();
  await page.getByRole('link', { name: /Map 5 of 5 filled/ }).waitFor();
  // The next record fills the page anew.
  before = await timesDrawn(page);
  await button('Next record').click();
  await row('Name').getByText('Tomasz Łąkowski').waitFor();
  await drawnAgain(page, before);
});

step('checks hold back what cannot run, and a record can be left out', async () => {
  await part(/^Checks/);
  await page.getByText('“wilf at example.org” cannot be mailed to: it has no @.').waitFor();
  await page.getByText('does not accept “Baritone”. It accepts “Soprano”, “Alto”, “Tenor”, “Bass”.').waitFor();
  await page.getByRole('link', { name: /Checks 2 stop/ }).waitFor();
  await button('Leave out row 9').click();
  await page.getByRole('link', { name: /Checks 1 stop/ }).waitFor();
  await button('Left out by hand').click();
  await button('Include row 9').waitFor();
});

step('output and message show what they give for the chosen record', async () => {
  await part(/^Output/);
  await button(/^Output$/).click();
  await page.getByLabel('Folders in the archive').fill('2027/{{ voice }}');
  await page.getByText('2027/Bass/', { exact: false }).first().waitFor();
  await page.getByLabel('File name', { exact: true }).fill('{{ memb');
  await page.getByRole('option', { name: /Member number/ }).click();
  await page.getByText(/2027\/Bass\/0018\.pdf/).waitFor();
  // The page beside it is drawn anew with the code on it.
  await page.waitForFunction(() => document.querySelectorAll('canvas').length > 0);
  const before = await timesDrawn(page);
  await page.getByRole('button', { name: /Symbol/ }).click();
  await page.getByRole('option', { name: /^Data Matrix/ }).click();
  await drawnAgain(page, before);
  await page.getByLabel('Width, mm').fill('30');
  await drawnAgain(page, before + 1);
  await page.getByText(/has no box|No template of the packet has a box for a picture/).waitFor();
  await button(/^Message$/).click();
  await page.getByLabel('Subject', { exact: true }).fill('Membership {{ plott }}');
  await page.getByText('names plott, which is not a column of the records').first().waitFor();
  await page.getByLabel('Subject', { exact: true }).fill('Membership {{ member_number }}');
  const letter = page.getByRole('article', { name: 'The message as it will be read' });
  await letter.getByText('Membership 0018').waitFor();
  // The body is written with a chip for a column, which the sample fills in.
  const body = page.getByRole('textbox', { name: 'Text', exact: true });
  await body.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' Yours is {{voi');
  await page.getByRole('option', { name: /Voice/ }).click();
  await page.keyboard.type('!');
  await letter.getByText('Yours is Bass!').waitFor();
  await button('as text', letter).click();
  await letter.getByText('Yours is Bass!').waitFor();
  await button(/^Test message to marit@larkmere.example/, letter).click();
  await letter.getByText(/^Sent: 250/).waitFor();
  const test = (await office.letters()).at(-1)!;
  expect(test).toMatchObject({
    to: 'marit@larkmere.example',
    subject: 'Test: Membership 0018',
    attachments: [{ name: '0018.pdf', type: 'application/pdf' }],
  });
  await page.getByText('Saved', { exact: true }).waitFor();
});

step('a batch makes and mails the copies, and the ledger knows what became of each', async () => {
  await page.getByRole('link', { name: 'Start a batch' }).click();
  await button(/^4 recipients/).waitFor();
  await button(/^1 is held back by a stop of the checks/).waitFor();
  await button(/^1 was left out by hand/).waitFor();
  await button('Make and mail 4 copies').click();
  await page.getByRole('heading', { name: /Batch 1 · Members 2027/ }).waitFor();
  await page.getByText(/^Finished/).waitFor();
  await page.getByRole('link', { name: 'sent 3' }).waitFor();
  await page.getByRole('link', { name: 'bounced 1' }).click();
  await page.getByRole('heading', { name: 'Ledger' }).waitFor();
  await page.getByRole('row', { name: /Petra Quist/ }).click();
  const side = page.getByRole('complementary', { name: 'Copy' });
  await side.getByText('550 5.1.1 unknown user "unknown.petra"').first().waitFor();
  await side.getByLabel('Address').fill('petra@example.net');
  await button('Correct and send', side).click();
  await side.getByText('Address corrected from unknown.petra@example.net to petra@example.net').waitFor();
  await side.getByText('Accepted by the mail server').waitFor();

  // Find goes from a person straight to the copy.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('dafni');
  await page.getByRole('option', { name: /Δάφνη Ρήγα/ }).click();
  await page.getByRole('complementary', { name: 'Copy' }).getByRole('heading', { name: 'Δάφνη Ρήγα' }).waitFor();
});

step(
  'another reader finds each value of the sheet on the right page of the right copy, in the mail and in the zip, and no field left',
  async () => {
    const received = (await office.letters()).filter(({ subject }) => !subject.startsWith('Test: '));
    expect(received.map(({ to }) => to).sort()).toEqual([
      'ayumi@example.org',
      'dafni@example.net',
      'petra@example.net',
      'tomasz@example.org',
    ]);
    for (const [number, first, last, mail, voice] of people.slice(0, 4)) {
      const message = received.find(({ to }) => to === mail.replace('unknown.', ''))!;
      expect(message.subject).toBe(`Membership ${number}`);
      const bytes = await office.attachment(message.id, 0);
      const pages = await readByOther(bytes);
      const text = pages.map((one) => one.text.normalize('NFC').replace(/\s+/g, ' '));
      for (const value of [number, `${first} ${last}`, voice]) expect(text[0]).toContain(value);
      expect(text[1]).toContain(`${first} ${last}`);
      for (const [, otherFirst, otherLast] of people)
        if (otherLast !== last) expect(text.join(' ')).not.toContain(`${otherFirst} ${otherLast}`);
      expect(pages.flatMap(({ fields }) => fields)).toEqual([]);
      expect(Buffer.from(bytes).equals(readFileSync(join(mailbag.data, 'archive', '2027', voice, `${number}.pdf`)))).toBe(true);
    }
    await page.goto(`${mailbag.address}/batches/1`);
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Zip' }).click()]);
    expect(download.suggestedFilename()).toBe('Batch 1 Members 2027.zip');
    const zip = readFileSync(await download.path());
    const one = readFileSync(join(mailbag.data, 'archive', '2027', 'Alto', '0017.pdf'));
    // Copies are stored in the zip as they are.
    expect(zip.includes(one)).toBe(true);
  },
);

step('who signs out sees the sign-in page, and nothing behind it', async () => {
  await button(/signed in as Marit Odum/).click();
  await page.getByRole('menuitem', { name: /Sign out/ }).click();
  await page.getByRole('heading', { name: 'Sign in' }).waitFor();
  await page.goto(`${mailbag.address}/ledger`);
  await page.getByRole('heading', { name: 'Sign in' }).waitFor();
  await page.getByLabel('E-mail address', { exact: true }).fill('marit@larkmere.example');
  await page.getByLabel('Password', { exact: true }).fill('wrong password');
  await button('Sign in').click();
  await page.getByText('The e-mail address or the password is wrong.').waitFor();
});
