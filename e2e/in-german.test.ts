import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Locator, Page } from 'playwright-core';
import { violationsOn } from '../testing/axe.js';
import { readByOther } from '../testing/other-reader.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, seen } from './browser.js';
import { membershipForm } from './membership-form.js';
import { storyOn } from './steps.js';

/**
 * The main job in German, as whoever has a German browser does it, in a window of 640 by 400: 1280 by 800 at 200 % (WCAG 2.2, 1.4.4 and 1.4.10). And what is
 * left in English on the way.
 */
let office: PostOffice;
let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-files-'));
const sheet = [
  'Member number,First name,Surname,E-mail,Voice,Pays by debit',
  '0017,Ayumi,Brandt,ayumi@example.org,Alto,yes',
  '0018,Tomasz,Łąkowski,tomasz@example.org,Bass,no',
  '0019,Wilf,Ashdown,wilf at example.org,Tenor,yes',
];

const catalogue = join(import.meta.dirname, '../apps/web/src/words/de');
/** English messages that are said otherwise in German, with what is said. */
const german = new Map(
  readdirSync(catalogue)
    .flatMap((file) => Object.entries(JSON.parse(readFileSync(join(catalogue, file), 'utf8')) as Record<string, string>))
    .filter(([english, own]) => english !== own && english !== 'Post office' && /\p{L}{4}/u.test(english)),
);

beforeAll(async () => {
  writeFileSync(join(folder, 'membership.pdf'), await membershipForm());
  writeFileSync(join(folder, 'members.csv'), `${sheet.join('\r\n')}\r\n`);
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser, 'de-AT'));
  await page.setViewportSize({ width: 640, height: 400 });
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
  rmSync(folder, { recursive: true, force: true });
});

const step = storyOn(() => ({ page, faults }), 'the main job in German, in a window at 200 %');
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name });
const link = (name: string | RegExp): Locator => page.getByRole('link', { name });
const part = (name: RegExp): Promise<void> =>
  page.getByRole('navigation', { name: 'Teile der Sendung' }).getByRole('link', { name }).click();
/** Places stand in a menu in a window so small. */
const place = async (name: RegExp): Promise<void> => {
  await button('Menü').click();
  await page.getByRole('navigation', { name: 'Hauptmenü' }).getByRole('link', { name }).click();
};
/** Panes stand behind each other there. */
const pane = (name: string): Promise<void> =>
  page.getByRole('group', { name: 'Teile dieser Seite' }).getByRole('button', { name, exact: true }).click();
const chooseFile = async (name: string, file: string): Promise<void> => {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button(name).click()]);
  await chooser.setFiles(join(folder, file));
};
/** Messages on the page that are still in English: texts, names, hints and the title that are English messages word for word. */
async function leftInEnglish(): Promise<string[]> {
  const texts = await page.evaluate(() => {
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const found: string[] = [document.title];
    while (walker.nextNode()) found.push(walker.currentNode.textContent?.trim() ?? '');
    for (const name of ['aria-label', 'title', 'placeholder', 'alt'])
      for (const element of document.querySelectorAll(`[${name}]`)) found.push(element.getAttribute(name) ?? '');
    return found;
  });
  const own = new Set(german.values());
  return texts.flatMap((text) => [text, ...text.split(' · ')]).filter((text) => german.has(text) && !own.has(text));
}

/** What is left in English, and what axe finds: German words are longer, and names that are said otherwise must still hold what is seen. */
const faultsSeen = async (): Promise<string[]> => [...(await leftInEnglish()), ...(await violationsOn(page))];

step('whoever has a German browser is spoken to in German from the first page on', async () => {
  await page.goto(mailbag.address);
  await page.getByRole('heading', { name: 'Anmelden' }).waitFor();
  expect(await page.evaluate(() => document.documentElement.lang)).toBe('de');
  await page.getByLabel('E-Mail-Adresse').fill(person.email);
  await page.getByLabel('Passwort').fill('nicht das richtige');
  await button('Anmelden').click();
  await page.getByText('Diese E-Mail-Adresse und dieses Passwort gehören nicht zusammen.').waitFor();
  await page.getByLabel('Passwort').fill(person.password);
  await button('Anmelden').click();
  await page.getByRole('heading', { name: 'Schreibtisch' }).waitFor();
});

step('template, records and mailing come together', async () => {
  await place(/^Vorlagen/);
  await chooseFile('Vorlage hochladen', 'membership.pdf');
  await page.getByRole('heading', { name: 'membership', exact: true }).waitFor();
  await place(/^Sendungen/);
  await page.getByLabel('Name der neuen Sendung').fill('Mitglieder 2027');
  await button('Eine Sendung beginnen').click();
  await button('membership hinzufügen').click();
  await button('membership aus dem Paket nehmen').waitFor();
  await part(/^Datensätze/);
  await chooseFile('Tabelle wählen', 'members.csv');
  await button('Datensätze lesen').click();
  await link(/Datensätze 3 · members\.csv/).waitFor();
  expect(await faultsSeen()).toEqual([]);
});

step('the map, the checks and the message say in German what they find', async () => {
  await part(/^Zuordnung/);
  await button(/^\d Vorschläge annehmen/).click();
  await page.getByText('Gespeichert', { exact: true }).waitFor();
  await pane('Ausgefüllte Seite');
  await page.locator('canvas[data-drawn]').first().waitFor();
  expect(await faultsSeen()).toEqual([]);
  await part(/^Prüfungen/);
  await pane('Betroffene Datensätze');
  await page.getByText('An „wilf at example.org“ kann nicht gemailt werden', { exact: false }).waitFor();
  expect(await faultsSeen()).toEqual([]);
  await part(/^Ausgabe/);
  await button(/^Nachricht$/).click();
  await page.getByLabel('Betreff', { exact: true }).fill('Mitgliedschaft {{ plott }}');
  await page.getByText('nennt plott, was keine Spalte der Datensätze ist').first().waitFor();
  await page.getByLabel('Betreff', { exact: true }).fill('Mitgliedschaft {{ member_number }}');
  await pane('Für diesen Datensatz');
  await page.getByRole('article', { name: 'Die Nachricht, wie sie gelesen wird' }).getByText('Mitgliedschaft 0017').waitFor();
  await page.getByText('Gespeichert', { exact: true }).waitFor();
  expect(await faultsSeen()).toEqual([]);
});

step('a batch makes and mails the copies, and the ledger tells of them', async () => {
  await link('Stapel beginnen').click();
  await button('2 Exemplare erstellen und mailen').click();
  await page.getByRole('heading', { name: 'Stapel 1 · Mitglieder 2027' }).waitFor();
  await page.getByText(/^Fertig seit/).waitFor();
  await link('gesendet 2').click();
  await page.getByRole('heading', { name: 'Ausgangsbuch' }).waitFor();
  await page.getByRole('row', { name: /Tomasz Łąkowski/ }).click();
  const side = page.getByRole('complementary', { name: 'Exemplar' });
  await side.getByText('Vom Mailserver angenommen').waitFor();
  expect(await faultsSeen()).toEqual([]);
  const received = (await office.letters()).filter(({ subject }) => subject.startsWith('Mitgliedschaft'));
  expect(received.map(({ to }) => to).sort()).toEqual(['ayumi@example.org', 'tomasz@example.org']);
  const [first] = await readByOther(await office.attachment(received.find(({ to }) => to === 'tomasz@example.org')!.id, 0));
  expect(first!.text.normalize('NFC')).toContain('Łąkowski');
});

step('no screen says one of its messages in English, and none is out of reach in German', async () => {
  const left: string[] = [];
  for (const [address, heading] of [
    ['/desk', 'Schreibtisch'],
    ['/mailings', 'Sendungen'],
    ['/mailings/1/packet', 'Mitglieder 2027'],
    ['/mailings/1/contact', 'Mitglieder 2027'],
    ['/mailings/1/start', 'Mitglieder 2027'],
    ['/templates', 'Vorlagen'],
    ['/templates/1', 'membership'],
    ['/templates/1/layout', 'membership'],
    ['/templates/1/revisions', /membership/],
    ['/sources', 'Quellen'],
    ['/sources/1?view=report', 'members.csv'],
    ['/intakes', 'Onlineformulare'],
    ['/batches/1', /Stapel 1/],
    ['/paper', 'Papier'],
    ['/wastebasket', 'Papierkorb'],
    ['/settings/mail', 'Einstellungen'],
    ['/settings/people', 'Einstellungen'],
    ['/settings/safety', 'Einstellungen'],
    ['/settings/jobs', 'Einstellungen'],
    ['/settings/history', 'Einstellungen'],
    ['/nowhere', 'Hier ist nichts'],
  ] as const) {
    await page.goto(`${mailbag.address}${address}`);
    await seen(page.getByRole('heading', { name: heading, level: 1 }).first());
    await page.waitForLoadState('networkidle');
    left.push(...(await faultsSeen()).map((text) => `${address}: ${text}`));
  }
  expect(left).toEqual([]);
});

step('numbers, dates and the language of one’s own: English for this person, in every browser', async () => {
  await page.goto(`${mailbag.address}/settings/you`);
  await button(/Sprache$/).click();
  // By a key: the page is loaded anew as soon as it is chosen, which may come between a mouse button's down and up.
  await page.getByRole('option', { name: 'English' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Settings' }).waitFor();
  await page.goto(`${mailbag.address}/ledger`);
  await page.getByRole('heading', { name: 'Ledger' }).waitFor();
  const elsewhere = await openPage(browser, 'de-DE');
  await elsewhere.page.goto(mailbag.address);
  await elsewhere.page.getByLabel('E-Mail-Adresse').fill(person.email);
  await elsewhere.page.getByLabel('Passwort').fill(person.password);
  await elsewhere.page.getByRole('button', { name: 'Anmelden' }).click();
  await elsewhere.page.getByRole('heading', { name: 'Desk' }).waitFor();
  expect(elsewhere.faults).toEqual([]);
});
