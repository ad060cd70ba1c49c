import { PDFDocument, degrees } from '@cantoo/pdf-lib';
import { codesOn } from '../../../../../../testing/codes-on.js';
import { testFonts } from '../../../testing/platform.js';
import { compileTemplate } from '../../plan/compile.js';
import { fillCopy } from '../fill.js';
import type { CopyStamp } from './copy-stamp.js';
import { stampCorners, stampPlaces, symbologies, usualStamp } from './copy-stamp.js';

const CODE = 'CB1D-YXJY-V7S';
const A4 = { width: 595, height: 842 };
const MM = 72 / 25.4;

test.each(stampCorners)('a stamp stands as far from the edges of its corner as it is said: %s', (corner) => {
  const [place] = stampPlaces({ ...usualStamp, corner, fromSide: 10, fromEnd: 20, width: 25, inPrint: false }, [A4]);
  const side = corner.endsWith('left') ? place!.x : A4.width - place!.x - place!.width;
  const end = corner.startsWith('bottom') ? place!.y : A4.height - place!.y - place!.height;
  expect([side, end, place!.width].map((points) => points / MM)).toEqual([expect.closeTo(10), expect.closeTo(20), expect.closeTo(25)]);
});

test('the print below a symbol does not reach beyond the edge either, and what is too far away is pushed back onto the page', () => {
  const [low] = stampPlaces({ ...usualStamp, corner: 'bottom-left', fromEnd: 0 }, [A4]);
  expect(low!.y).toBe(9);
  const [far] = stampPlaces({ ...usualStamp, fromSide: 4000, fromEnd: 4000 }, [A4]);
  expect([far!.x, far!.y]).toEqual([0, 0]);
});

test('the first page, the last or all of them', () => {
  const on = (pages: CopyStamp['pages']): number[] => stampPlaces({ ...usualStamp, pages }, [A4, A4, A4]).map(({ page }) => page);
  expect([on('first'), on('last'), on('all')]).toEqual([[1], [3], [1, 2, 3]]);
  expect(stampPlaces(usualStamp, [])).toEqual([]);
});

test.each(symbologies)('%s is read by another reader on pages of every size and turn', async (symbology) => {
  const doc = await PDFDocument.create();
  for (const [size, turn] of [
    [[595, 842], 0],
    [[842, 595], 90],
    [[420, 300], 180],
  ] as const)
    doc.addPage([...size]).setRotation(degrees(turn));
  doc.getForm().createTextField('a').addToPage(doc.getPage(0), { x: 50, y: 50, width: 100, height: 20 });
  const stamp: CopyStamp = { ...usualStamp, symbology, pages: 'all', width: symbology === 'code128' ? 60 : 22 };
  const compiled = await compileTemplate(await doc.save(), { fonts: await testFonts(), faces: [], stamps: [stamp] });
  const { bytes } = fillCopy(compiled, { a: 'x' }, { code: CODE });
  for (const page of [0, 1, 2]) expect((await codesOn(bytes, page, 3)).map(({ text }) => text)).toEqual([CODE]);
});

test.each(symbologies)('%s holds the personal link where it is to and there is one, bars the code all the same', async (symbology) => {
  const doc = await PDFDocument.create();
  doc
    .getForm()
    .createTextField('a')
    .addToPage(doc.addPage([595, 842]), { x: 50, y: 50, width: 100, height: 20 });
  const stamp: CopyStamp = { ...usualStamp, symbology, width: symbology === 'code128' ? 60 : 32, holds: 'link' };
  const compiled = await compileTemplate(await doc.save(), { fonts: await testFonts(), faces: [], stamps: [stamp] });
  const link = `https://forms.example.org/in/check-your-plot#${CODE}.axvCrHt46XgFabiusmcbzM`;
  const heldBy = async (told: { code: string; link?: string }): Promise<string[]> =>
    (await codesOn(fillCopy(compiled, { a: 'x' }, told).bytes, 0, 3)).map(({ text }) => text);
  expect(await heldBy({ code: CODE, link })).toEqual([symbology === 'code128' ? CODE : link]);
  expect(await heldBy({ code: CODE })).toEqual([CODE]);
});
