import type { StandardFonts } from '@cantoo/pdf-lib';
import { PDFDocument, PDFName, rgb } from '@cantoo/pdf-lib';
import { greyAt, inkIn, pictureOf } from '../../../../../testing/picture.js';
import type { Picture } from '../../../../../testing/picture.js';
import { readByOther } from '../../../../../testing/other-reader.js';
import { readByPdfium } from '../../../../../testing/read-by-pdfium.js';
import { typedByPdfium } from '../../../../../testing/typed-by-pdfium.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf, stream } from '../../../../../testing/raw-form.js';
import type { CompileOptions } from '../plan/compile.js';
import { compileTemplate } from '../plan/compile.js';
import type { Finish } from '../finish.js';
import { fillCopy } from './fill.js';
import type { FieldValues } from '../value.js';

/**
 * What stands on the paper, case by case, against what other readers draw of the same form and value: PDFium by typing, pdf.js by the places of texts, and the
 * same text drawn by another library on a bare page. Tolerances stand with each group.
 */
let options: CompileOptions;
beforeAll(async () => {
  options = { fonts: await testFonts(), faces: testFaces() };
});
const copyOf = async (pdf: Uint8Array, values: FieldValues, finish: Finish = 'flattened') =>
  fillCopy(
    await compileTemplate(pdf, { ...options, finish, characters: Object.values(values).flatMap((value) => String(value).split(/\s+/)) }),
    values,
  );

interface Box {
  font: string;
  size: number;
  height: number;
  width?: number;
  border?: number;
  multiline?: boolean;
  quadding?: 0 | 1 | 2;
  comb?: number;
}
const LEFT = 50;
const BOTTOM = 60;
const rectOf = ({ height, width = 200 }: Box): number[] => [LEFT, BOTTOM, LEFT + width, BOTTOM + height];
/** A form of one text field, without an appearance of its own. */
function boxForm(box: Box): Uint8Array {
  const { font, size, border = 0, multiline, quadding = 0, comb } = box;
  const flags = (multiline ? 1 << 12 : 0) | (comb ? 1 << 24 : 0);
  const form = formOf(
    [
      `/FT/Tx/T(a)/Rect[${rectOf(box).join(' ')}]/DA(/F ${size} Tf 0 g)/Q ${quadding}/Ff ${flags}${comb ? `/MaxLen ${comb}` : ''}` +
        (border > 0 ? `/MK<</BC[0]>>/BS<</W ${border}>>` : ''),
    ],
    { form: `/DR<</Font<</F 6 0 R>>>>`, more: [`<</Type/Font/Subtype/Type1/BaseFont/${font}/Encoding/WinAnsiEncoding>>`] },
  );
  // High enough for every box; as many bytes as before.
  return Uint8Array.from(Buffer.from(Buffer.from(form).toString('latin1').replace('[0 0 300 200]', '[0 0 300 900]'), 'latin1'));
}
const placesOf = async (bytes: Uint8Array): Promise<{ text: string; x: number; y: number }[]> => (await readByOther(bytes))[0]!.pieces;

const boxes: [string, Box, string][] = ['Helvetica', 'Helvetica-Bold', 'Times-Roman', 'Times-Bold', 'Courier'].flatMap((font) => [
  [`${font} 12 in a box of 22`, { font, size: 12, height: 22 }, 'Hamburg'],
  [`${font} 9 in a box of 14 with a border`, { font, size: 9, height: 14, border: 1 }, 'Hamburg'],
  [`${font} 10, centred`, { font, size: 10, height: 20, quadding: 1 }, 'Hamburg'],
  [`${font} 10, to the right`, { font, size: 10, height: 20, quadding: 2 }, 'Hamburg'],
  [`${font} 12, several lines`, { font, size: 12, height: 70, multiline: true }, 'One\rTwo\rThree'],
  [`${font} 9, several lines with a border`, { font, size: 9, height: 60, multiline: true, border: 1 }, 'One\rTwo\rThree'],
]);

/** PDFium leaves no space beside its text, we leave 2 points as other producers do; lines of Courier it sets closer and higher (its own metrics). */
describe('text stands where PDFium puts what is typed: baselines within 0.12 of the type size, lines as far apart within 0.06, left edges within 3 points', () => {
  test.each(boxes)('%s', async (_, box, text) => {
    const pdf = boxForm(box);
    const theirs = await typedByPdfium(pdf, rectOf(box), text);
    const ours = await placesOf((await copyOf(pdf, { a: text.replaceAll('\r', '\n') })).bytes);
    expect(ours.map((line) => line.text)).toEqual(theirs.map((line) => line.text));
    const isFixed = box.font === 'Courier';
    ours.forEach((line, index) => {
      const drift = box.multiline ? 0.35 : isFixed ? 0.12 : 0.06;
      expect(Math.abs(line.y - theirs[index]!.y)).toBeLessThanOrEqual(drift * box.size + (isFixed ? 1.2 : 0.6));
      expect(Math.abs(line.x - theirs[index]!.x)).toBeLessThanOrEqual(3);
    });
    if (ours.length > 1 && !isFixed)
      expect(Math.abs(ours[0]!.y - ours[1]!.y - (theirs[0]!.y - theirs[1]!.y))).toBeLessThan(0.08 * box.size);
  });
});

/** Values that a producer saved, as measured over forms of several (docs/layout.md): the place of the first baseline above the foot of the box. */
describe('text stands where most producers save it, within 0.05 points', () => {
  test.each([
    ['one line', { font: 'Helvetica', size: 12, height: 22 }, 'x', 6.548],
    ['one line in a lower box', { font: 'Helvetica', size: 12, height: 20 }, 'x', 5.548],
    ['one line in a high box', { font: 'Helvetica', size: 12, height: 156.024, border: 1 }, 'x', 73.56],
    ['10 points', { font: 'Helvetica', size: 10, height: 15.543, border: 1 }, 'x', 4.061],
    ['several lines', { font: 'Helvetica', size: 12, height: 733.62, multiline: true, border: 1 }, 'x', 717.749],
    ['several lines of automatic size', { font: 'Helvetica', size: 0, height: 156.024, multiline: true, border: 1 }, 'x', 140.152],
    ['several lines of 10 points', { font: 'Helvetica', size: 10, height: 80, multiline: true, border: 1 }, 'x', 66.44],
    ['automatic size', { font: 'Helvetica', size: 0, height: 48.709, border: 1 }, 'x', 11.511],
    ['automatic size in a higher box', { font: 'Helvetica', size: 0, height: 54.079, border: 1 }, 'x', 12.726],
  ] as [string, Box, string, number][])('%s', async (_, box, text, y) => {
    const [place] = await placesOf((await copyOf(boxForm(box), { a: text })).bytes);
    expect(Math.abs(place!.y - BOTTOM - y)).toBeLessThan(0.05);
  });
});

/** The rightmost dark column of a picture, in points. */
function inkEnds(picture: Picture, scale: number): number {
  for (let x = picture.width - 1; x >= 0; x--)
    for (let y = 0; y < picture.height; y++) if (greyAt(picture, x, y) < 128) return (x + 1) / scale;
  return 0;
}

/**
 * A narrow font that the form names and does not carry. Widths of Arial Narrow as its font file tells them (from memory: 82 % of those of Arial, which are those
 * of Helvetica); ISO 32000-2, 9.2.4: the width of a glyph is the one that the font dictionary gives.
 */
describe('narrow fonts are drawn narrow: the ink ends within a point of where their widths say', () => {
  const text = 'Hamburgefonstiv';
  const helvetica = {
    H: 722,
    a: 556,
    m: 833,
    b: 556,
    u: 556,
    r: 333,
    g: 556,
    e: 556,
    f: 278,
    o: 556,
    n: 556,
    s: 500,
    t: 278,
    i: 222,
    v: 500,
  };
  const full = [...text].reduce((sum, letter) => sum + helvetica[letter as keyof typeof helvetica], 0);
  const narrowWidths = Array.from({ length: 91 }, (_, index) => {
    const usual = helvetica[String.fromCharCode(index + 32) as keyof typeof helvetica];
    return usual === undefined ? 0 : Math.round(usual * 0.82);
  });
  const descriptor =
    '<</Type/FontDescriptor/FontName/ArialNarrow/Flags 32/ItalicAngle 0/Ascent 936/Descent -212/FontBBox[-182 -307 1000 1086]>>';
  const widths = `/FirstChar 32/LastChar 122/Widths[${narrowWidths.join(' ')}]/FontDescriptor 7 0 R`;
  test.each([
    ['by the widths of the form', 'ArialNarrow', widths, '', 0.82, {}],
    ['by its name alone', 'HelveticaNeueLTStd-Cn', '', '', 0.82, {}],
    ['by its name, condensed', 'FrutigerLTStd-LightCond', '', '', 0.82, {}],
    ['to the right', 'ArialNarrow', widths, '', 0.82, { quadding: 2 }],
    ['in several lines', 'ArialNarrow', widths, '', 0.82, { multiline: true, height: 40 }],
    ['a font of usual width', 'ArialMT', '', '', 1, {}],
    ['scaled by the default appearance (ISO 32000-2, 9.3.4)', 'Helvetica', '', ' 70 Tz', 0.7, {}],
  ] as [string, string, string, string, number, Partial<Box>][])('%s', async (_, font, more, scaling, share, box) => {
    const [size, height, width, quadding] = [12, box.height ?? 20, 200, box.quadding ?? 0];
    const pdf = formOf(
      [
        `/FT/Tx/T(a)/Rect[20 20 ${20 + width} ${20 + height}]/DA(/F ${size} Tf${scaling} 0 g)/Q ${quadding}/Ff ${box.multiline ? 1 << 12 : 0}`,
      ],
      {
        form: '/DR<</Font<</F 6 0 R>>>>',
        more: [`<</Type/Font/Subtype/TrueType/BaseFont/${font}/Encoding/WinAnsiEncoding${more}>>`, descriptor],
      },
    );
    for (const finish of ['flattened', 'locked'] as const) {
      const { bytes, notes } = await copyOf(pdf, { a: text }, finish);
      expect(notes).toEqual([]);
      const ends = quadding === 2 ? 20 + width - 2 : 20 + 2 + (full * share * size) / 1000;
      expect(Math.abs(inkEnds(await pictureOf(bytes, 0, 4), 4) - ends)).toBeLessThan(1);
    }
  });
  test('a value fits that would not at full width', async () => {
    const form = (font: string): Uint8Array =>
      formOf([`/FT/Tx/T(a)/Rect[20 20 ${20 + 4 + full * 0.009} 40]/DA(/F 10 Tf 0 g)`], {
        form: '/DR<</Font<</F 6 0 R>>>>',
        more: [`<</Type/Font/Subtype/TrueType/BaseFont/${font}/Encoding/WinAnsiEncoding>>`],
      });
    expect((await copyOf(form('ArialNarrow'), { a: text })).notes).toEqual([]);
    expect((await copyOf(form('ArialMT'), { a: text })).notes).toMatchObject([{ field: 'a' }]);
  });
});

/** The page with the text drawn by another library at the same place, without a box to cut it. */
async function bare(font: StandardFonts, size: number, text: string, x: number, y: number): Promise<Picture> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([300, 900]);
  page.drawText(text, { x, y, size, font: await doc.embedFont(font), color: rgb(0, 0, 0) });
  return pictureOf(await doc.save({ useObjectStreams: false }), 0, 4);
}
const darkIn = (picture: Picture): number => {
  let count = 0;
  for (let y = 0; y < picture.height; y++) for (let x = 0; x < picture.width; x++) if (greyAt(picture, x, y) < 128) count++;
  return count;
};

describe('no mark of a capital is cut off: as much ink as the same text has without a box, within 1 %', () => {
  const text = 'ÅÖÉÇÑÛgjpy';
  test.each(
    (['flattened', 'locked'] as const).flatMap((finish): [string, Box, Finish][] => [
      [`${finish}, one line that just fits`, { font: 'Helvetica', size: 12, height: 14 }, finish],
      [`${finish}, a box a little lower than the line`, { font: 'Helvetica', size: 12, height: 13.2 }, finish],
      [`${finish}, several lines`, { font: 'Helvetica', size: 12, height: 40, multiline: true, border: 1 }, finish],
      [`${finish}, several lines in a box of one`, { font: 'Helvetica', size: 10, height: 14, multiline: true }, finish],
      [`${finish}, automatic size`, { font: 'Times-Roman', size: 0, height: 22, border: 1 }, finish],
      [`${finish}, bold`, { font: 'Helvetica-Bold', size: 11, height: 14, border: 1 }, finish],
    ]),
  )('%s', async (_, box, finish) => {
    const pdf = boxForm(box);
    const flat = (await copyOf(pdf, { a: text })).bytes;
    const copy = await copyOf(pdf, { a: text }, finish);
    const [place] = await placesOf(flat);
    const size = Number(
      /([\d.]{1,12}) Tf/.exec(
        Buffer.from((await copyOf(pdf, { a: text }, 'locked')).bytes)
          .toString('latin1')
          .split('/Tx BMC')[1] ?? '',
      )?.[1] ?? box.size,
    );
    const whole = darkIn(await bare(box.font as StandardFonts, size, text, place!.x, place!.y));
    // Without its border, which may touch the ink.
    const picture = await pictureOf(copy.bytes, 0, 4);
    const [l = 0, b = 0, r = 0, t = 0] = rectOf(box);
    const inset = box.border ?? 0;
    const inside = inkIn(picture, [l + inset, b + inset, r - inset, t - inset], 4);
    expect(inside / whole).toBeGreaterThan(0.99);
    expect(copy.notes.filter(({ fit }) => fit === 'overflows')).toEqual([]);
  });
  test('a value that is higher than its box is made smaller, and where that is not wanted it is told', async () => {
    const box: Box = { font: 'Helvetica', size: 14, height: 9 };
    expect((await copyOf(boxForm(box), { a: 'ÅÖg' })).notes).toMatchObject([{ fit: 'tight' }]);
    const compiled = await compileTemplate(boxForm(box), options);
    const clipped = fillCopy(compiled, { a: 'ÅÖg' }, { fit: { tooLong: 'clip', smallest: 5 } });
    expect(clipped.notes).toMatchObject([{ fit: 'overflows' }]);
    // Small letters are not higher than the box.
    expect(fillCopy(compiled, { a: 'xuz' }, { fit: { tooLong: 'clip', smallest: 5 } }).notes).toEqual([]);
  });
});

describe('every text is read as it was meant by pdf.js and PDFium, without a stray character', () => {
  const asRead = (text: string): string => text.normalize('NFC').replace(/\s+/g, ' ').trim();
  test.each([
    ['Latin with marks', 'Åström Łukasz Ấn'],
    ['decomposed letters', 'Zoe\u0308 a\u0301'],
    ['Greek and Cyrillic', 'Ωμέγα Жук'],
    ['Arabic with dots and joined letters', 'مرحبا بالعالم'],
    ['Hebrew', 'שלום עולם'],
    ['Devanagari', 'हिन्दी क्षेत्रफल'],
    ['Devanagari, a word that begins with a mark in its code', 'श्री त्र्यंबक'],
    ['Bengali', 'বাংলা ক্ষেত্র'],
    ['Tamil', 'தமிழ்நாடு கோபால'],
    ['Thai', 'ภาษาไทย น้ำ'],
    ['Georgian and Armenian', 'ბათუმი Հայաստան'],
  ])('%s', async (_, text) => {
    const { bytes } = await copyOf(boxForm({ font: 'Helvetica', size: 12, height: 24 }), { a: text });
    expect(asRead(await readByPdfium(bytes))).toBe(asRead(text));
    const pieces = await placesOf(bytes);
    const isRtl = /[\u0590-\u06ff]/.test(text);
    const words = pieces.map((piece) => piece.text.trim()).filter(Boolean);
    expect(asRead((isRtl ? words.reverse() : words).join(' '))).toBe(asRead(text));
  });
});

describe('right to left', () => {
  /** Where each character stands, left to right, by its place on the page. */
  const drawn = async (text: string, box: Box = { font: 'Helvetica', size: 12, height: 24 }): Promise<string> =>
    (await placesOf((await copyOf(boxForm(box), { a: text })).bytes))
      .sort((a, b) => a.x - b.x)
      .map((piece) => piece.text)
      .join('');
  test.each([
    ['Hebrew', 'שלום 12 (34)'],
    ['Hebrew in brackets', '(שלום) 12'],
    ['Arabic', 'مرحبا (12)'],
  ])('brackets open and close as they do in the same line of Chromium: %s', async (_, text) => {
    // UAX #9, L4: an opening bracket at an odd level is drawn as a closing one. Beside a number in such a line every pair must still face inwards.
    const line = await drawn(text);
    for (const pair of line.match(/[()][^()]*[()]/g) ?? []) expect(pair.startsWith('(') && pair.endsWith(')')).toBe(true);
  });
  /** Dark pixels of a text, by rows. */
  const inkOf = async (text: string): Promise<number[][]> => {
    const picture = await pictureOf((await copyOf(boxForm({ font: 'Helvetica', size: 14, height: 24 }), { a: text })).bytes, 0, 4);
    return Array.from({ length: picture.height }, (_, y) =>
      Array.from({ length: picture.width }, (_, x) => x).filter((x) => greyAt(picture, x, y) < 128),
    );
  };
  test.each(['(שלום)', '(שלום) 12 (34)', '(مرحبا)', '12 (مرحبا)', '(مرحبا) 12'])(
    'the bracket at the left of %s opens to the right in the picture',
    async (text) => {
      const rows = await inkOf(text);
      const left = Math.min(...rows.flatMap((row) => row[0] ?? Infinity));
      // The bracket is what stands within the first 3 points; where it reaches furthest to the left is its middle, not its ends.
      const own = rows.flatMap((row, y) => (row[0] !== undefined && row[0] < left + 12 ? [{ y, x: row[0] }] : []));
      const [top, bottom] = [own[0]!.y, own.at(-1)!.y];
      const furthest = own.filter(({ x }) => x === left).map(({ y }) => (y - top) / (bottom - top));
      expect(Math.min(...furthest)).toBeGreaterThan(0.15);
      expect(Math.max(...furthest)).toBeLessThan(0.85);
    },
  );
  test('a comb is filled from its right end, numbers from left to right', async () => {
    const box: Box = { font: 'Helvetica', size: 12, height: 24, comb: 8, width: 160 };
    const places = await placesOf((await copyOf(boxForm(box), { a: 'אב12' })).bytes);
    const cellOf = (text: string): number => Math.floor((places.find((piece) => piece.text.includes(text))!.x - LEFT) / 20);
    expect([cellOf('א'), cellOf('ב')]).toEqual([7, 6]);
    expect([cellOf('1'), cellOf('2')]).toEqual([4, 5]);
  });
  test('a decomposed letter takes one cell', async () => {
    const box: Box = { font: 'Helvetica', size: 12, height: 24, comb: 3, width: 90 };
    const copy = await copyOf(boxForm(box), { a: 'Zoe\u0308' });
    expect(copy.notes).toEqual([]);
    expect((await placesOf(copy.bytes)).map(({ text }) => text).join('')).toBe('Zoë');
  });
});

describe('under and over', () => {
  const field = `/FT/Tx/T(a)/Rect[10 10 110 30]/DA(/Helv 12 Tf 0 g)`;
  const square = (more = ''): string => `<</Type/Annot/Subtype/Square/Rect[5 5 115 35]/IC[1 1 0]/C[1 1 0]/F 4${more}>>`;
  const look = stream('/Type/XObject/Subtype/Form/BBox[5 5 115 35]', '0 1 1 rg 5 5 110 30 re f');
  /** A form whose page has an annotation before its field. */
  const form = (annotation: string): Uint8Array =>
    Uint8Array.from(
      Buffer.from(
        Buffer.from(formOf([field], { more: [annotation, look] }))
          .toString('latin1')
          .replace('/Annots[5 0 R]', '/Annots[6 0 R 5 0 R]'),
        'latin1',
      ),
    );
  test.each([
    ['a filled square without a look of its own', square()],
    ['a stamp with one', `<</Type/Annot/Subtype/Stamp/Rect[5 5 115 35]/F 4/AP<</N 7 0 R>>>>`],
  ])('%s that lay beneath a field stays beneath its value', async (_, annotation) => {
    const picture = await pictureOf((await copyOf(form(annotation), { a: 'MMMM' })).bytes);
    expect(inkIn(picture, [10, 10, 110, 30])).toBeGreaterThan(200);
    // And it is still seen.
    expect(greyAt(picture, 2 * 112, picture.height - 2 * 20)).toBeLessThan(250);
  });
});

describe('a form that asks viewers to draw (NeedAppearances)', () => {
  const needed = { form: '/NeedAppearances true' };
  const box = '/MK<</BC[0]/BG[0.8]/CA(4)>>/BS<</W 1>>';
  test.each(['flattened', 'locked', 'open'] as const)(
    '%s: unchosen boxes and borders do not vanish, buttons keep their caption',
    async (finish) => {
      const pdf = formOf(
        [
          `/FT/Btn/T(tick)/Rect[10 10 30 30]${box}/AP<</N<</Yes 8 0 R>>>>/AS/Off`,
          `/FT/Tx/T(text)/Rect[50 10 110 30]/DA(/Helv 10 Tf 0 g)${box}`,
          `/FT/Btn/Ff 65536/T(send)/Rect[150 10 250 30]/DA(/Helv 10 Tf 0 g)/MK<</BC[0]/BG[0.8]/CA(Send)>>`,
        ],
        { ...needed, more: [stream('/Type/XObject/Subtype/Form/BBox[0 0 20 20]', '0 g 4 4 12 12 re f')] },
      );
      const picture = await pictureOf((await copyOf(pdf, { tick: false }, finish)).bytes);
      for (const rect of [
        [9, 9, 31, 31],
        [49, 9, 111, 31],
      ])
        expect(inkIn(picture, rect)).toBeGreaterThan(100);
      expect(inkIn(picture, [160, 13, 240, 27])).toBeGreaterThan(30);
      if (finish === 'flattened') return;
      // PDFium draws by itself what has no appearance; other viewers show nothing then.
      const kept = (await PDFDocument.load((await copyOf(pdf, { tick: false }, finish)).bytes)).getForm();
      for (const field of kept.getFields())
        expect(field.acroField.getWidgets().every((widget) => widget.dict.has(PDFName.of('AP')))).toBe(true);
    },
  );
});

describe('marks by their captions, in the colour and size of DA, as PDFium draws the same state: within a quarter of its ink', () => {
  test.each([
    ['a tick', '/CA(4)'],
    ['no caption: a tick', ''],
    ['a cross', '/CA(8)'],
    ['a star', '/CA(H)'],
    ['a circle', '/CA(l)'],
    ['a square', '/CA(n)'],
    ['a diamond', '/CA(u)'],
  ])('%s', async (_, caption) => {
    const widget = (more: string): string => `/FT/Btn/T(a)/Rect[50 50 90 90]/DA(/ZaDb 30 Tf 1 0 0 rg)/MK<<${caption}>>${more}`;
    const dingbats = '<</Type/Font/Subtype/Type1/BaseFont/ZapfDingbats>>';
    const code = /\((.)\)/.exec(caption)?.[1] ?? '4';
    // The same character of the font, in the middle of the box.
    const advance = { 4: 846, 8: 677, H: 816, l: 791, n: 761, u: 788 }[code]!;
    const [x, y] = [(40 - (advance * 30) / 1000) / 2, (40 - 0.963 * 30) / 2 + 0.143 * 30];
    const theirs = formOf([widget('/AP<</N<</Yes 7 0 R>>>>/AS/Yes')], {
      more: [
        dingbats,
        stream(
          '/Type/XObject/Subtype/Form/BBox[0 0 40 40]/Resources<</Font<</ZaDb 6 0 R>>>>',
          `BT 1 0 0 rg /ZaDb 30 Tf ${x} ${y} Td (${code}) Tj ET`,
        ),
      ],
    });
    const [drawn, meant] = await Promise.all([
      pictureOf((await copyOf(formOf([widget('/AS/Off')]), { a: true })).bytes),
      pictureOf(theirs),
    ]);
    let [both, either] = [0, 0];
    for (let row = 0; row < drawn!.height; row++)
      for (let column = 0; column < drawn!.width; column++) {
        const [a, b] = [greyAt(drawn!, column, row) < 170, greyAt(meant!, column, row) < 170];
        if (a && b) both++;
        if (a || b) either++;
      }
    expect(either).toBeGreaterThan(200);
    expect(both / either).toBeGreaterThan(0.55);
  });
});

describe('a list box', () => {
  const options = Array.from({ length: 12 }, (_, index) => `(Entry ${String.fromCharCode(65 + index)})`).join('');
  const list = `/FT/Ch/Ff 2097152/T(a)/Rect[10 10 110 82]/DA(/Helv 12 Tf 0 g)/Opt[${options}]`;
  test('shows its entries in lines as producers do: 1.156 of the type size from the top edge less 1 point', async () => {
    const places = await placesOf((await copyOf(formOf([list]), { a: ['Entry B'] })).bytes);
    expect(places.slice(0, 3).map(({ text }) => text)).toEqual(['Entry A', 'Entry B', 'Entry C']);
    // 59.612 and 45.74 in a box of 72 (measured; docs/layout.md).
    expect(places[0]!.y - 10).toBeCloseTo(59.612, 1);
    expect(places[1]!.y - 10).toBeCloseTo(45.74, 1);
  });
  test('shows every chosen entry that fits from the first one on, and says which do not', async () => {
    const copy = await copyOf(formOf([list]), { a: ['Entry G', 'Entry I', 'Entry L'] });
    const shown = (await placesOf(copy.bytes)).map(({ text }) => text);
    expect(shown).toEqual(['Entry G', 'Entry H', 'Entry I', 'Entry J', 'Entry K']);
    expect(copy.notes).toMatchObject([{ field: 'a', fit: 'overflows', unseen: ['Entry L'] }]);
  });
});

test('a widget that does not say how it is turned is turned as its producer has drawn it (ISO 32000-2, 12.5.5, Matrix)', async () => {
  const before = stream(
    '/Type/XObject/Subtype/Form/BBox[0 0 100 20]/Matrix[0 1 -1 0 20 0]/Resources<</Font<</Helv 4 0 R>>>>',
    'BT /Helv 12 Tf 2 6 Td (before) Tj ET',
  );
  const pdf = formOf(['/FT/Tx/T(a)/V(before)/Rect[50 50 70 150]/DA(/Helv 12 Tf 0 g)/AP<</N 6 0 R>>'], { more: [before] });
  const { bytes, notes } = await copyOf(pdf, { a: 'Turned' });
  expect(notes).toEqual([]);
  const [piece] = (await readByOther(bytes))[0]!.pieces;
  expect(piece!.text).toBe('Turned');
  // Upwards along the box from its foot, the baseline to the right of its middle.
  expect([piece!.x, piece!.y]).toEqual([expect.closeTo(70 - 5.548, 1), expect.closeTo(52, 1)]);
});

test('negative numbers in red are red', async () => {
  const script = 'AFNumber_Format\\(2, 0, 3, 0, "", true\\)';
  const pdf = formOf([`/FT/Tx/T(a)/Rect[10 10 110 30]/DA(/Helv 12 Tf 0 g)/AA<</F<</S/JavaScript/JS(${script})>>>>`]);
  const content = Buffer.from((await copyOf(pdf, { a: '-12.5' })).bytes).toString('latin1');
  expect(content).toContain('1 0 0 rg');
  expect((await placesOf((await copyOf(pdf, { a: '-12.5' })).bytes))[0]!.text).toBe('(12.50)');
  expect(Buffer.from((await copyOf(pdf, { a: '12.5' })).bytes).toString('latin1')).not.toContain('1 0 0 rg');
});
