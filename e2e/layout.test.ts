import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Locator, Page } from 'playwright-core';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { paperForm } from './membership-form.js';
import { visitsOn } from './steps.js';

let browser: Browser;
let page: Page;
let faults: string[];
let visits = 0;
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-layout-'));

beforeAll(async () => {
  writeFileSync(join(folder, 'paper.pdf'), await paperForm());
  await mailbag.start();
  await mailbag.setUp();
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await signInTo(page, mailbag.address, person, 'Templates');
});
afterAll(async () => {
  await browser?.close();
  await mailbag.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Each visit has a form without fields of its own before it, to be drawn on. */
async function begin(): Promise<void> {
  const form = await paperForm(`Paper ${++visits}`);
  const { template } = await mailbag.client.upload<{ template: { id: number } }>('/api/templates?blanks=draw', `paper ${visits}.pdf`, form);
  await page.goto(`${mailbag.address}/templates/${template.id}/layout`);
  await page.getByText('Nothing drawn yet').waitFor();
}
const visit = visitsOn(() => ({ page, faults }), begin);
const button = (name: string | RegExp, within: Page | Locator = page): Locator => within.getByRole('button', { name, exact: true });
const board = (): Locator => page.getByRole('region', { name: 'Pages of the template' });
const list = (): Locator => page.getByRole('listbox', { name: 'Fields in tab order' });
const settings = (): Locator => page.getByRole('region', { name: 'Settings of what is chosen' });
/** Points from the left upper corner of the page, as they are on the screen. */
async function at(x: number, y: number): Promise<{ x: number; y: number }> {
  const sheet = (await page.getByRole('group', { name: 'Page 1 of 1' }).boundingBox())!;
  const scale = sheet.width / 595.28;
  return { x: sheet.x + x * scale, y: sheet.y + y * scale };
}
async function drag(from: [number, number], to: [number, number]): Promise<void> {
  const [start, end] = [await at(...from), await at(...to)];
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move((start.x + end.x) / 2, (start.y + end.y) / 2, { steps: 4 });
  await page.mouse.move(end.x, end.y, { steps: 4 });
  await page.mouse.up();
}
interface Drawn {
  name: string;
  kind: string;
  rect: [number, number, number, number];
}
/** What the server has once everything is saved. */
async function saved(): Promise<Record<string, Drawn>> {
  await page.getByText('Saved', { exact: true }).waitFor();
  const [, template] = /templates\/(\d+)/.exec(page.url())!;
  const { layout } = await mailbag.client.get<{ layout: { fields: Record<string, Drawn> } }>(`/api/templates/${template}/layout`);
  return Object.fromEntries(Object.values(layout.fields).map((field) => [field.name, field]));
}
const names = (): Promise<string[]> => list().getByRole('option').allInnerTexts();

visit('a form without fields is opened to be drawn on, and a blank that was found becomes a field by one click on the page', async () => {
  await page.getByRole('link', { name: 'Templates', exact: true }).first().click();
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), button('Upload a template').click()]);
  await chooser.setFiles(join(folder, 'paper.pdf'));
  await button('Draw its fields').click();
  await page.getByText('Nothing drawn yet').waitFor();
  await button('Blank: Name', board()).click();
  await list().getByRole('option', { name: 'Name' }).waitFor();
  expect((await saved())['name']).toMatchObject({ kind: 'text' });
  // The rest of them: one from the list, two by an area around them.
  await button('Use “Telephone”').click();
  await button('By area').click();
  await drag([40, 145], [300, 245]);
  await list().getByRole('option').nth(3).waitFor();
  await page.getByText('All blanks that were found are fields.').waitFor();
});

visit('a field that is drawn by hand lies on the line of the page that it comes near', async () => {
  await button('Text').click();
  // The line for the signature is 240 points from the top; the hand ends two points above it.
  await drag([340, 222], [480, 238]);
  await button('text, Text, page 1', board()).waitFor();
  const { text } = await saved();
  expect(841.89 - text!.rect[1]).toBeCloseTo(240, 1);
  await settings().getByRole('textbox', { name: 'Name', exact: true }).fill('countersigned');
  await page.keyboard.press('Tab');
  await button('countersigned, Text, page 1', board()).waitFor();
});

visit('fields are aligned by the mouse, and that is undone', async () => {
  await button('Text').click();
  await drag([350, 300], [450, 316]);
  await button('Text').click();
  await drag([365, 340], [500, 356]);
  const [one, other] = [button('text, Text, page 1', board()), button('text_2, Text, page 1', board())];
  await one.click();
  await other.click({ modifiers: ['Shift'] });
  await button('Align left edges').click();
  const { text, text_2 } = await saved();
  expect(text_2!.rect[0]).toBe(text!.rect[0]);
  await button('Same size').click();
  const same = await saved();
  expect(same['text_2']!.rect[2]).toBe(same['text']!.rect[2]);
  await board().click({ position: { x: 8, y: 8 } });
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect((await saved())['text_2']!.rect[0]).not.toBe(text!.rect[0]);
});

visit('by keys alone a tick is drawn, moved, duplicated, named, put elsewhere in tab order, and removed', async () => {
  await button('Tick').focus();
  await page.keyboard.press('Enter');
  const tick = button('tick, Tick, page 1', board());
  await tick.waitFor();
  await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'tick, Tick, page 1');
  const before = (await saved())['tick']!.rect;
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  const moved = async (): Promise<number[]> => (await saved())['tick']!.rect;
  await expect(moved()).resolves.toEqual(
    [before[0] + 1, before[1] - 10, before[2] + 1, before[3] - 10].map((side) => expect.closeTo(side, 1) as number),
  );
  await page.keyboard.press('Control+d');
  await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'tick_2, Tick, page 1');
  await settings().getByRole('textbox', { name: 'Label for people' }).focus();
  await page.keyboard.type('Hedge is below 1.2 m');
  await page.keyboard.press('Enter');
  const row = list().getByRole('option', { name: 'Hedge is below 1.2 m' });
  await row.waitFor();
  const all = (await names()).length;
  await row.focus();
  await page.keyboard.press('Alt+ArrowUp');
  await settings()
    .getByRole('textbox', { name: `Place in tab order, of ${all}` })
    .and(page.locator(`[value="${all - 1}"]`))
    .waitFor();
  await button('Hedge is below 1.2 m, Tick, page 1', board()).focus();
  await page.keyboard.press('Delete');
  await row.waitFor({ state: 'detached' });
});

visit('what is copied is pasted, and a line of text and the copy code are stamped on every copy', async () => {
  await button('Tick').focus();
  await page.keyboard.press('Enter');
  await button('tick, Tick, page 1', board()).click();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await button('tick_2, Tick, page 1', board()).waitFor();
  for (const [stamp, place] of [
    ['QR code', [480, 40]],
    ['Line of text', [60, 780]],
  ] as const) {
    await button('Stamp').click();
    await page.getByRole('menuitem', { name: stamp }).click();
    const { x, y } = await at(place[0], place[1]);
    await page.getByRole('group', { name: 'Page 1 of 1' }).scrollIntoViewIfNeeded();
    await page.mouse.click(x, Math.min(y, 780));
  }
  const stamps = page.getByRole('listbox', { name: 'Stamps' });
  await stamps.getByRole('option', { name: 'Copy {{ number }} of {{ count }}' }).waitFor();
  await stamps.getByRole('option', { name: 'Copy code, QR code' }).waitFor();
});

visit('taken into use, it is a revision with real fields, and what was drawn can be changed further', async () => {
  await button('Blank: Name', board()).click();
  await button('Use “Telephone”').click();
  await list().getByRole('option').nth(1).waitFor();
  await page.getByText('Saved', { exact: true }).waitFor();
  await button('Take into use as revision 2').click();
  await page.getByText(/Revision 2 is in use, with 2 fields/).waitFor();
  await page.getByRole('link', { name: 'Fields', exact: true }).click();
  await button(/^Telephone/, page.getByRole('region', { name: 'Fields', exact: true })).waitFor();
  await page.getByRole('link', { name: 'Layout', exact: true }).click();
  await page.getByText('In use as it is').waitFor();
  await list().getByRole('option', { name: 'Telephone' }).click();
  await page.keyboard.press('Delete');
  await button('Take into use as revision 3').and(page.locator(':not([disabled])')).waitFor();
  await button('Discard').click();
  await button('Discard it').click();
  await page.getByText('In use as it is').waitFor();
  await list().getByRole('option', { name: 'Telephone' }).waitFor();
  // That too can be undone.
  await page.keyboard.press('Control+z');
  await list().getByRole('option', { name: 'Telephone' }).waitFor({ state: 'detached' });
});
