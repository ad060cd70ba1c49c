import { encode as encodePng } from 'fast-png';
import { codesOn } from '../../../../../../testing/codes-on.js';
import { inkIn, pictureOf } from '../../../../../../testing/picture.js';
import { formOf } from '../../../../../../testing/raw-form.js';
import { testFonts } from '../../../testing/platform.js';
import { readByOther } from '../../../../../../testing/other-reader.js';
import { compileTemplate } from '../../plan/compile.js';
import { fillCopy } from '../fill.js';
import type { StampPlace } from './stamp.js';
import { loadSymbols, symbolModules } from './stamp.js';

const CODE = 'CB1D-YXJY-V7S';
const form = (page = ''): Uint8Array => formOf(['/FT/Tx/T(a)/Rect[10 10 60 30]'], { page });
const place = (symbology: StampPlace['symbology'], more: Partial<StampPlace> = {}): StampPlace => ({
  page: 1, symbology, x: 100, y: 80, width: 90, height: 30, inPrint: true, ...more,
}); // prettier-ignore

describe.each(['flattened', 'locked', 'open'] as const)('a copy code on a copy that is %s', (finish) => {
  test.each(['qr', 'datamatrix', 'code128'] as const)('is read by another reader: %s, and stands below it in print', async (symbology) => {
    const compiled = await compileTemplate(form(), { fonts: await testFonts(), faces: [], finish, stamps: [place(symbology)] });
    const { bytes } = fillCopy(compiled, { a: 'x' }, { code: CODE });
    expect((await codesOn(bytes)).map(({ text }) => text)).toEqual([CODE]);
    expect((await readByOther(bytes))[0]!.text).toContain(CODE);
  });
});

test.each([90, 180, 270])('stands where the person sees it on a page turned by %i degrees', async (rotation) => {
  const compiled = await compileTemplate(form(`/Rotate ${rotation}`), {
    fonts: await testFonts(),
    faces: [],
    stamps: [place('qr', { x: 0, y: 0, width: 60, inPrint: false })],
  });
  const { bytes } = fillCopy(compiled, {}, { code: CODE });
  expect((await codesOn(bytes)).map(({ text }) => text)).toEqual([CODE]);
  const picture = await pictureOf(bytes);
  expect(inkIn(picture, [0, 0, 60, 60])).toBeGreaterThan(1000);
});

test('Code 128 has 11 modules a character, 11 for start and check each, and 13 to stop (ISO/IEC 15417)', async () => {
  await loadSymbols([{ symbology: 'code128' }]);
  expect(symbolModules('code128', 'ABxy')[0]).toHaveLength(11 * 6 + 13);
});

describe('a picture in a box', () => {
  const boxed = formOf(['/FT/Sig/T(sign)/Rect[100 50 200 90]', '/FT/Tx/T(a)/Rect[10 10 60 30]']);
  const png = (channels: 1 | 2 | 3 | 4): Uint8Array =>
    encodePng({
      width: 20,
      height: 20,
      channels,
      depth: 8,
      data: new Uint8Array(20 * 20 * channels).map((_, index) => (channels % 2 === 0 && index % channels === channels - 1 ? 255 : 0)),
    });

  test.each([1, 2, 3, 4] as const)('keeps its aspect and stands in the middle, with %i channels', async (channels) => {
    const compiled = await compileTemplate(boxed, { fonts: await testFonts(), faces: [] });
    const picture = await pictureOf(fillCopy(compiled, {}, { images: { sign: png(channels) } }).bytes);
    // A square of 40 points in the middle of a box of 100 by 40.
    expect(inkIn(picture, [130, 50, 170, 90])).toBeGreaterThan(80 * 80 * 0.95);
    expect(inkIn(picture, [100, 50, 128, 90]) + inkIn(picture, [172, 50, 200, 90])).toBe(0);
  });

  test('that is no picture is refused with the name of its field', async () => {
    const compiled = await compileTemplate(boxed, { fonts: await testFonts(), faces: [] });
    expect(() => fillCopy(compiled, {}, { images: { sign: Uint8Array.of(1, 2, 3) } })).toThrow('“sign”');
    expect(() => fillCopy(compiled, {}, { images: { sign: png(3).slice(0, 60) } })).toThrow('“sign”');
  });
});
