import type { Browser, Locator, Page } from 'playwright-core';
import { startBatch } from '../demo/src/start-batch.js';
import { violationsOn } from '../testing/axe.js';
import { PostOffice, RunningMailbag, person } from '../testing/running-mailbag.js';
import type { Batch } from '../testing/small-mailing.js';
import { smallMailing } from '../testing/small-mailing.js';
import { openBrowser, openPage, seen, sheetRow, signInTo } from './browser.js';
import { visitsOn } from './steps.js';

/** Every screen, for those who cannot see it, cannot use a mouse, or have it large (WCAG 2.2, level AA). */
let browser: Browser;
let page: Page;
let faults: string[];
let office: PostOffice;
const mailbag = new RunningMailbag();

/** A mailing with a batch, an intake and paper. */
async function somethingToSee(): Promise<void> {
  const { client } = mailbag;
  const rows = [1, 2, 3].map((at): [string, string, string, string] => [
    `P-${at}`,
    `Tenant ${at}`,
    at === 3 ? '' : `p${at}@example.org`,
    'yes',
  ]);
  const { mailing, template } = await smallMailing(client, rows);
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  await client.send('POST', '/api/intakes', { name: 'Ask for a permit', templates: [template] });
}
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  await somethingToSee();
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Mailings');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  await office?.close();
});
/** Each begins in a window of the usual size. */
const visit = visitsOn(
  () => ({ page, faults }),
  async () => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.emulateMedia({ media: 'screen' });
  },
);
const button = (name: string | RegExp): Locator => page.getByRole('button', { name });
const link = (name: string | RegExp): Locator => page.getByRole('link', { name });
const heading = (name: string | RegExp): Locator => page.getByRole('heading', { name, level: 1 });

/** Where each screen is, what shows that it is there, and what its window is called. */
const screens: readonly (readonly [address: string, shown: () => Locator, title: string])[] = [
  ['/desk', () => page.getByRole('heading', { name: 'Needs you' }), 'Desk'],
  ['/mailings', () => link('Permits').first(), 'Mailings'],
  ['/mailings/1/packet', () => page.getByRole('region', { name: 'The template' }).locator('canvas[data-drawn]'), 'Packet · Permits'],
  ['/mailings/1/records', () => page.getByRole('grid', { name: 'Records' }).getByText('P-1', { exact: true }), 'Records · Permits'],
  ['/mailings/1/map', () => sheetRow(page, 'Plot number'), 'Map · Permits'],
  ['/mailings/1/checks', () => page.getByText('of 3 can run'), 'Checks · Permits'],
  ['/mailings/1/contact', () => page.getByText(/^\d copies$/), 'Contact sheet · Permits'],
  ['/mailings/1/output', () => page.getByLabel('Subject'), 'Output and message · Permits'],
  ['/mailings/1/start', () => page.getByText('Who gets copies'), 'Start a batch · Permits'],
  ['/sources', () => link('rows.csv'), 'Sources'],
  ['/sources/1', () => page.getByRole('grid', { name: 'Records' }).getByText('P-1', { exact: true }), 'rows.csv'],
  ['/sources/1?view=report', () => heading('rows.csv'), 'rows.csv'],
  ['/sources/1?view=corrections', () => heading('rows.csv'), 'rows.csv'],
  ['/sources/1?view=pictures', () => button('Add a folder'), 'rows.csv'],
  ['/intakes', () => link(/^Ask for a permit/), 'Intakes'],
  ['/intakes/1/questions', () => page.getByRole('region', { name: 'Questions' }), 'Questions · Ask for a permit'],
  ['/intakes/1/page', () => page.getByLabel('Heading of the page'), 'Page · Ask for a permit'],
  ['/intakes/1/after', () => page.getByText('are made at once'), 'After submitting · Ask for a permit'],
  ['/intakes/1/languages', () => page.getByRole('region', { name: 'Languages' }), 'Languages · Ask for a permit'],
  ['/intakes/1/answers', () => heading('Ask for a permit'), 'Answers · Ask for a permit'],
  ['/templates', () => link(/^permit/).first(), 'Templates'],
  ['/templates/1', () => page.locator('canvas[data-drawn]').first(), 'permit'],
  ['/templates/1/layout', () => page.locator('canvas[data-drawn]').first(), 'Layout · permit'],
  ['/templates/1/revisions', () => heading(/./), 'Revisions · permit'],
  ['/batches/1', () => page.getByRole('row', { name: /Tenant 1/ }), 'Batch 1 · Permits'],
  ['/ledger', () => page.getByRole('row', { name: /Tenant 1/ }), 'Ledger'],
  ['/paper', () => page.getByText('Gather for the post'), 'Paper'],
  ['/wastebasket', () => heading('Wastebasket'), 'Wastebasket'],
  ['/settings/mail', () => heading('Settings'), 'Senders · Settings'],
  ['/settings/people', () => page.getByText(person.email).first(), 'People · Settings'],
  ['/settings/retention', () => heading('Settings'), 'Retention · Settings'],
  ['/settings/history', () => page.getByText('signed in').first(), 'History · Settings'],
  ['/nowhere', () => heading('There is nothing here'), 'There is nothing here'],
];
const goTo = async (address: string, shown: () => Locator): Promise<void> => {
  await page.goto(`${mailbag.address}${address}`, { waitUntil: 'commit' });
  await seen(shown().first());
};

/** How far a screen runs out of the side of a window of 320 pixels, px. */
async function overflowAt320(): Promise<number> {
  const wide = page.viewportSize()!;
  await page.setViewportSize({ width: 320, height: 640 });
  await page.locator('main h1').waitFor();
  await page.waitForFunction(() => !/Reading .* …/.test(document.querySelector('main')?.textContent ?? ''));
  const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  await page.setViewportSize(wide);
  return over;
}

visit('every screen can be read by everybody, has one heading and a title of its own, and fits 320 pixels', async () => {
  const found: Record<string, object> = {};
  for (const [address, shown] of screens) {
    await goTo(address, shown);
    const faults = await violationsOn(page);
    found[address] = { faults, headings: await page.locator('h1').count(), title: await page.title(), over: await overflowAt320() };
  }
  expect(found).toEqual(
    Object.fromEntries(screens.map(([address, , title]) => [address, { faults: [], headings: 1, title: `${title} · Mailbag`, over: 0 }])),
  );
});

/** What would be missing on paper: panes that are not there, and what scrolls. */
const missingOnPaper = (): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('main *')]
      .filter((one) => {
        const isPane = one.tagName === 'SECTION' && one.getClientRects().length === 0;
        const isCut = /auto|scroll/.test(getComputedStyle(one).overflowY) && one.scrollHeight > one.clientHeight + 1;
        return isPane || isCut;
      })
      .map((one) => `${one.tagName} ${one.getAttribute('aria-label') ?? one.className}`),
  );

visit('on paper stands all that a screen holds, its panes below each other', async () => {
  const wide = page.viewportSize()!;
  await page.setViewportSize({ width: 680, height: 300 });
  await page.emulateMedia({ media: 'print' });
  const missing: Record<string, string[]> = {};
  const printed = screens.filter(([address]) => /map|checks|ledger|sources|batches/.test(address));
  for (const [address, shown] of printed) {
    await goTo(address, shown);
    missing[address] = await missingOnPaper();
  }
  await page.emulateMedia({ media: 'screen' });
  await page.setViewportSize(wide);
  expect(missing).toEqual(Object.fromEntries(printed.map(([address]) => [address, []])));
});

visit('in a window that is zoomed to 200 %, a list that opens leaves the page where it is and its button uncovered', async () => {
  const wide = page.viewportSize()!;
  await page.setViewportSize({ width: 640, height: 400 });
  const seenThen: object[] = [];
  for (const [address, name] of [
    ['/settings/you', /Language$/],
    ['/sources/1', /In column$/],
  ] as const) {
    await goTo(address, () => button(name));
    const choice = button(name);
    await choice.scrollIntoViewIfNeeded();
    const before = (await choice.boundingBox())!;
    // A mouse button that is held: what stands below the pointer when it is let go would be chosen.
    await page.mouse.move(before.x + before.width / 2, before.y + before.height / 2);
    await page.mouse.down();
    await seen(page.getByRole('option').first());
    const after = await page.evaluate(
      ([x, y]) => ({ scrolled: document.body.scrollTop, below: document.elementFromPoint(x!, y!)?.closest('[role=option]') !== null }),
      [before.x + before.width / 2, before.y + before.height / 2],
    );
    seenThen.push({ address, ...after });
    await page.mouse.up();
    await page.keyboard.press('Escape');
  }
  await page.setViewportSize(wide);
  expect(seenThen.map((one) => ({ ...one, scrolled: 0, below: false }))).toEqual(seenThen);
});

/** What is opened on a screen, by what stands there then. */
const states: readonly (readonly [address: string, open: () => Promise<void>, shown: () => Locator])[] = [
  ['/mailings/1/map?template=1&field=permit.name', () => Promise.resolve(), () => page.getByRole('group', { name: /^Rule for/ })],
  ['/mailings/1/map', () => button('Changes').click(), () => page.getByRole('dialog')],
  ['/mailings/1/map', () => button('Row').click(), () => page.getByLabel('Row of the source')],
  ['/mailings/1/checks', () => button('What is checked').click(), () => page.getByRole('region', { name: 'What is checked' })],
  ['/mailings/1/output?part=output', () => Promise.resolve(), () => page.getByText('Folders in the archive')],
  ['/mailings/1/output?part=paper', () => Promise.resolve(), () => button('Paper')],
  ['/mailings/1/output?part=reminders', () => Promise.resolve(), () => button('Reminders')],
  ['/sources/1?column=Plot', () => Promise.resolve(), () => page.getByLabel('Column Plot')],
  ['/ledger', () => page.getByRole('row', { name: /Tenant 1/ }).click(), () => page.getByRole('heading', { name: /Tenant 1|P-1/ })],
  ['/batches/1?copy=1', () => Promise.resolve(), () => page.getByLabel('First page of the copy')],
  ['/templates/1', () => button('Delete').click(), () => page.locator('[role=alertdialog], [role=dialog]')],
  ['/desk', () => button(/signed in as/).click(), () => page.getByRole('menuitem', { name: /^Sign out/ })],
  ['/desk', async () => (await page.keyboard.press('Control+k'), page.keyboard.type('Tenant')), () => page.getByRole('option').first()],
];

visit('so can what opens on them', async () => {
  const found: [string, string[]][] = [];
  for (const [address, open, shown] of states) {
    await goTo(address, () => page.locator('main'));
    await open();
    await seen(shown().first());
    // While the list of a combobox is open, what is around it is hidden from readers; whoever goes there with Tab closes the list first, which axe does not see.
    const isListOpen = (await page.getByRole('listbox').count()) > 0;
    const faults = await violationsOn(page);
    found.push([`${address}: ${String(shown())}`, faults.filter((fault) => !(isListOpen && fault.startsWith('aria-hidden-focus')))]);
  }
  expect(found.filter(([, faults]) => faults.length > 0)).toEqual([]);
});

visit('record, field and filter stand in the address: a reload and Back show the same', async () => {
  await goTo('/mailings/1/map', () => sheetRow(page, 'Plot number'));
  await button('Next record').click();
  await sheetRow(page, /^Name of the tenant/).click();
  await page.getByRole('group', { name: /^Rule for/ }).waitFor();
  expect(new URL(page.url()).search).toBe('?record=1&template=1&field=permit.name');
  await page.reload();
  await page.getByRole('group', { name: /^Rule for/ }).waitFor();
  await sheetRow(page, /^Name of the tenant.*Tenant 2/).waitFor();
  // The record goes along from one part to the next, and stands in the address there.
  await link(/^Checks/).click();
  await page.waitForURL(/\/checks\?record=1$/);
  await page.goBack();
  await page.getByRole('group', { name: /^Rule for/ }).waitFor();
  // From a finding one lands on its record, and Back returns to the same list.
  await goTo('/mailings/1/checks?sort=column', () => link('4: on the map'));
  await link('4: on the map').first().click();
  await sheetRow(page, /^Name of the tenant.*Tenant 3/).waitFor();
  await page.goBack();
  await link('4: on the map').first().waitFor();
  expect(new URL(page.url()).searchParams.get('sort')).toBe('column');
});

visit('places and actions are found by their words', async () => {
  await goTo('/desk', () => page.getByRole('heading', { name: 'Needs you' }));
  await page.keyboard.press('Control+k');
  await page.keyboard.type('new mail');
  await page.getByRole('option', { name: /^Begin a mailing/ }).waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await heading('Mailings').waitFor();
});

visit('by keyboard one is past the menu at once, and the sheet is one stop with arrows inside', async () => {
  await goTo('/mailings/1/map', () => sheetRow(page, 'Plot number'));
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => document.activeElement?.tagName === 'MAIN');
  const sheet = page.getByRole('treegrid', { name: 'Answers of the packet' });
  const focused = sheet.locator('[role=row]:focus');
  for (let presses = 0; presses < 40 && (await focused.count()) === 0; presses++) await page.keyboard.press('Tab');
  await page.keyboard.press('End');
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  expect(await focused.textContent()).toContain('Name of the tenant');
  await page.keyboard.press('Enter');
  await page.getByRole('group', { name: /^Rule for/ }).waitFor();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Escape');
  expect(await focused.textContent()).toContain('Name of the tenant');
  // One stop: from the row Tab leads out of the sheet, through the rule that is open.
  expect(await sheet.locator('[role=row][tabindex="0"]').count()).toBe(1);
});

visit('what is deleted from a list is put back by one press, or from the wastebasket', async () => {
  await goTo('/mailings', () => link('Permits').first());
  await page.getByRole('checkbox', { name: 'Pick Permits' }).click();
  await button('Delete').click();
  await page.getByText('“Permits” is in the wastebasket.').waitFor();
  expect(await violationsOn(page)).toEqual([]);
  await button('Put back').click();
  await link('Permits').first().waitFor();
  await page.getByRole('checkbox', { name: 'Pick Permits' }).click();
  await button('Delete').click();
  await link(/^Wastebasket/).click();
  await page.getByRole('checkbox', { name: 'Pick Permits' }).click();
  await button('Put back').click();
  await heading('Wastebasket').waitFor();
  await page.getByRole('heading', { name: 'The wastebasket is empty' }).waitFor();
  await goTo('/mailings', () => link('Permits').first());
});

visit('the shortcuts of a screen are told, and single letters can be switched off', async () => {
  await goTo('/mailings/1/map', () => sheetRow(page, 'Plot number'));
  await page.keyboard.press('?');
  const help = page.getByRole('dialog', { name: 'Keyboard shortcuts' });
  await help.getByText('Worst case').waitFor();
  await help.getByText('From answer to answer').waitFor();
  await help.getByText('Find', { exact: true }).waitFor();
  expect(await violationsOn(page)).toEqual([]);
  await help.getByText('Single letters are shortcuts').click();
  await help.getByRole('button', { name: 'Close' }).click();
  await help.waitFor({ state: 'detached' });
  const worst = button('Worst case');
  await page.keyboard.press('w');
  await page.keyboard.press('?');
  expect([await worst.getAttribute('aria-pressed'), await help.count()]).toEqual(['false', 0]);
  // The way there that needs no letter.
  await button(/signed in as/).click();
  await page.getByRole('menuitem', { name: 'Keyboard shortcuts' }).click();
  await help.getByText('Single letters are shortcuts').click();
  await page.keyboard.press('Escape');
  await help.waitFor({ state: 'detached' });
  await page.keyboard.press('w');
  await page.getByText(/^Nobody has this record/).waitFor();
});

visit('at 320 pixels places stand in a menu and panes behind each other', async () => {
  await page.setViewportSize({ width: 320, height: 640 });
  await goTo('/mailings/1/map', () => sheetRow(page, 'Plot number'));
  expect(await violationsOn(page)).toEqual([]);
  await button('Filled page').click();
  await page.locator('canvas[data-drawn]').first().waitFor();
  await sheetRow(page, 'Plot number').waitFor({ state: 'hidden' });
  await button('Menu').click();
  await link('Ledger').click();
  await heading('Ledger').waitFor();
  await link('Sources').waitFor({ state: 'hidden' });
});
