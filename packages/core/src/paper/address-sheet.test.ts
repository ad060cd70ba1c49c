import { inkIn, pictureOf } from '../../../../testing/picture.js';
import { readByOther } from '../../../../testing/other-reader.js';
import { fillCopy } from '../pdf/fill/fill.js';
import { compileTemplate } from '../pdf/plan/compile.js';
import { inspectTemplate } from '../pdf/read/inspect.js';
import { testFonts } from '../testing/platform.js';
import { ADDRESS_FIELDS, addressSheet } from './address-sheet.js';
import { guessPaper } from './guess-paper.js';

const MM = 72 / 25.4;
const filled = async (address: string, returnLine = 'Larkmere Allotments, Reed Lane 1, 01067 Larkmere'): Promise<Uint8Array> =>
  fillCopy(await compileTemplate(addressSheet(), { fonts: await testFonts(), faces: [], given: Object.values(ADDRESS_FIELDS) }), {
    [ADDRESS_FIELDS.returnLine]: returnLine,
    [ADDRESS_FIELDS.address]: address,
  }).bytes;
/** A box in millimetres from the upper left corner of the sheet, as one in points from the lower left. */
const box = (left: number, top: number, right: number, bottom: number): number[] =>
  [left, 297 - bottom, right, 297 - top].map((mm) => mm * MM);
const six = ['Ada Quist', 'c/o Brandt', 'Reed Lane 1', 'Back house', '01067 Larkmere', 'NETHERLANDS'].join('\n');

test('the address stands in the window of DIN 5008, form B, whole, and nothing of it beside', async () => {
  const picture = await pictureOf(await filled(six));
  // The field begins 45 mm from the top and 20 mm from the left, 85 by 45 mm; the last 27.3 mm are the address.
  const inAddress = inkIn(picture, box(20, 62.7, 105, 90));
  const inReturnLine = inkIn(picture, box(20, 45, 105, 62.7));
  const onSheet = inkIn(picture, box(13, 0, 210, 297));
  expect(inAddress).toBeGreaterThan(0);
  expect(inReturnLine).toBeGreaterThan(0);
  expect(onSheet).toBe(inAddress + inReturnLine);
});

test('another reader finds six lines in their order, the return line above them', async () => {
  const [page] = await readByOther(await filled(six));
  const lines = page!.pieces.filter(({ text }) => text.trim() !== '').sort((a, b) => b.y - a.y);
  expect(lines[0]!.text).toMatch(/^Larkmere Allotments/);
  expect(lines.slice(1).map(({ text }) => text)).toEqual(six.split('\n'));
});

test('fold marks stand 105 and 210 mm from the top and the hole mark in the middle (DIN 5008, form B), where no address is', async () => {
  const picture = await pictureOf(await filled(''), 0, 4);
  const hasMark = (at: number): boolean => inkGrey(picture, at);
  expect([105, 148.5, 210].map(hasMark)).toEqual([true, true, true]);
  expect([60, 125, 180, 250].map(hasMark)).toEqual([false, false, false, false]);
});
/** Whether something that is not white stands at the left edge, at so many millimetres from the top. */
function inkGrey({ width, height, data }: { width: number; height: number; data: Uint8Array }, at: number): boolean {
  const [x, middle] = [Math.round(7 * MM * 4), Math.round(at * MM * 4)];
  for (let y = Math.max(0, middle - 4); y <= Math.min(height - 1, middle + 4); y++) if (data[(y * width + x) * 4]! < 200) return true;
  return false;
}

test('it is A4 (ISO 216), a template like any other, with a field of several lines', async () => {
  const { pages, fields } = (await inspectTemplate(addressSheet())) as unknown as {
    pages: { width: number; height: number }[];
    fields: { name: string; flags: string[] }[];
  };
  expect(fields.map(({ name, flags }) => [name, flags.includes('multiline')])).toEqual([
    [ADDRESS_FIELDS.returnLine, false],
    [ADDRESS_FIELDS.address, true],
  ]);
  expect([pages[0]!.width / MM, pages[0]!.height / MM].map(Math.round)).toEqual([210, 297]);
});

describe('where the address stands is guessed from the headings', () => {
  const of = (...names: string[]): ReturnType<typeof guessPaper> =>
    guessPaper(
      '{{ name }}',
      names.map((name) => ({ name, slug: name.toLowerCase().replace(/\W+/g, '_'), kind: 'text' as const })),
    );
  test.each<[string[], Partial<ReturnType<typeof guessPaper>>]>([
    [
      ['Street', 'Postcode', 'Town', 'Country'],
      { street: '{{ street }}', postalCode: '{{ postcode }}', town: '{{ town }}', country: '{{ country }}' },
    ],
    [['Address', 'ZIP', 'City', 'State'], { street: '{{ address }}', postalCode: '{{ zip }}', town: '{{ city }}', region: '{{ state }}' }],
    [['Straße', 'PLZ', 'Ort', 'Land'], { postalCode: '{{ plz }}', town: '{{ ort }}', country: '{{ land }}' }],
    [
      ['Rue', 'Code postal', 'Ville', 'Pays'],
      { street: '{{ rue }}', postalCode: '{{ code_postal }}', town: '{{ ville }}', country: '{{ pays }}' },
    ],
    [['Statement', 'Townhouse', 'Landlord'], { street: '', town: '', region: '', country: '' }],
  ])('%j', (names, wanted) => expect(of(...names)).toMatchObject(wanted));
  test('a column by its kind where no heading tells', () => {
    const found = guessPaper('', [
      { name: 'Wohin', slug: 'wohin', kind: 'address' },
      { name: 'Zahl', slug: 'zahl', kind: 'postal-code' },
    ]);
    expect(found).toMatchObject({ street: '{{ wohin }}', postalCode: '{{ zahl }}', wantsColumn: null });
  });
});
