import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Locator, Page } from 'playwright-core';
import { formOf, stream } from '../testing/raw-form.js';
import { RunningMailbag, person } from '../testing/running-mailbag.js';
import { openBrowser, openPage, signInTo } from './browser.js';
import { visitsOn } from './steps.js';

/** Forms whose pages need what does not stand in them: the application brings it along. */
let browser: Browser;
let page: Page;
let faults: string[];
const mailbag = new RunningMailbag();
const folder = mkdtempSync(join(tmpdir(), 'mailbag-drawn-'));

/** 16 x 16 pixels of one red as JPEG 2000 (ISO/IEC 15444-1), written by OpenJPEG 2.5. */
const RED = atob(
  'AAAADGpQICANCocKAAAAFGZ0eXBqcDIgAAAAAGpwMiAAAAAtanAyaAAAABZpaGRyAAAAEAAAABAAAwcHAAAAAAAPY29scgEAAAAAABAAAADtanAyY/9P/1EALwAAAAAAEAAAABAAAAAAAAAAAAAAABAAAAAQAAAAAAAAAAAAAwcBAQcBAQcBAf9SAAwAAAABAQAEBAAB/1wABEBA/2QAJQABQ3JlYXRlZCBieSBPcGVuSlBFRyB2ZXJzaW9uIDIuNS4w/5AACgAAAAAAdQAB/5PH1D4RUFSv30eytwAAAABhIS/axEAAAMJCX7aZAAABhIS/wfIPFABcr/ScsDwAAAAAYSEv34GAFABcr/ScsDwAAAAAYSEv2sRAAADCQl+2mQAAAYSEv20yAAADCQl+2mQAAAYSEv9//9k=',
);
/** A picture as JPEG 2000, a tick of ZapfDingbats, and a word in a font of Chinese characters that is not in the file (ISO 32000-2, 7.4.9, 9.6.2.2 and 9.7.5.2). */
const form = formOf(['/FT/Tx/T(name)/Rect[20 20 120 40]'], {
  page: '/Resources<</XObject<</R 6 0 R>>/Font<</Z 7 0 R/C 8 0 R>>>>/Contents 10 0 R',
  more: [
    stream('/Type/XObject/Subtype/Image/Width 16/Height 16/ColorSpace/DeviceRGB/BitsPerComponent 8/Filter/JPXDecode', RED),
    '<</Type/Font/Subtype/Type1/BaseFont/ZapfDingbats>>',
    '<</Type/Font/Subtype/Type0/BaseFont/Sung/Encoding/UniGB-UCS2-H/DescendantFonts[9 0 R]>>',
    '<</Type/Font/Subtype/CIDFontType0/BaseFont/Sung/CIDSystemInfo<</Registry(Adobe)/Ordering(GB1)/Supplement 2>>/FontDescriptor<</Type/FontDescriptor/FontName/Sung/Flags 4/FontBBox[0 -200 1000 900]/ItalicAngle 0/Ascent 880/Descent -120/CapHeight 700/StemV 80>>>>',
    stream('', 'q 60 0 0 60 20 120 cm /R Do Q BT /Z 40 Tf 120 130 Td (4) Tj ET BT /C 40 Tf 200 130 Td <4E2D> Tj ET'),
  ],
});

beforeAll(async () => {
  writeFileSync(join(folder, 'form.pdf'), form);
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
const visit = visitsOn(() => ({ page, faults }));

/** What is drawn within a rectangle of the page, in points: the middle pixel, and how many are dark. */
const drawn = (
  canvas: Locator,
  rect: [left: number, bottom: number, right: number, top: number],
): Promise<{ middle: number[]; dark: number }> =>
  canvas.evaluate((element, [left, bottom, right, top]) => {
    const canvas = element as HTMLCanvasElement;
    const scale = canvas.width / 300;
    const ink = canvas.getContext('2d')!;
    const { data } = ink.getImageData(left * scale, (200 - top) * scale, (right - left) * scale, (top - bottom) * scale);
    const [middle] = [ink.getImageData(((left + right) / 2) * scale, (200 - (top + bottom) / 2) * scale, 1, 1).data];
    let dark = 0;
    for (let at = 0; at < data.length; at += 4) if (data[at]! + data[at + 1]! + data[at + 2]! < 200) dark++;
    return { middle: [...middle], dark };
  }, rect);

/** The picture, the tick and the word are there, and nothing was asked for in vain. */
async function isWhole(canvas: Locator, warned: readonly string[]): Promise<void> {
  await canvas.waitFor();
  const [red, green, blue] = (await drawn(canvas, [20, 120, 80, 180])).middle;
  expect({ red: red! > 150, green: green! < 90, blue: blue! < 90 }).toEqual({ red: true, green: true, blue: true });
  expect((await drawn(canvas, [120, 120, 160, 170])).dark).toBeGreaterThan(50);
  expect(warned.filter((line) => /Unable to load|no file|instantiateWasm|CMap/.test(line))).toEqual([]);
}
const warned: string[] = [];
beforeAll(() => void page.on('console', (line) => void warned.push(line.text())));

visit('a picture as JPEG 2000, a tick, and characters of a font that the file does not carry are on the page', async () => {
  await page.goto(`${mailbag.address}/templates`);
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Upload a template' }).click()]);
  await chooser.setFiles(join(folder, 'form.pdf'));
  await page.getByRole('heading', { name: 'form', exact: true }).waitFor();
  await isWhole(page.locator('canvas[data-drawn]'), warned);
});

visit('they are on the filled form that a visitor sees', async () => {
  const { template } = await mailbag.client.upload<{ template: { id: number } }>('/api/templates', 'form.pdf', form);
  const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/intakes', { name: 'Drawn', templates: [template.id] });
  const { word } = await mailbag.client.send<{ word: string }>('POST', `/api/intakes/${id}/publish`);
  await page.goto(`${mailbag.address}/in/${word}`);
  await page.getByRole('button', { name: 'Start' }).click();
  await page.getByRole('button', { name: 'See the form as it is filled so far' }).click();
  await isWhole(page.locator('canvas').first(), warned);
});
