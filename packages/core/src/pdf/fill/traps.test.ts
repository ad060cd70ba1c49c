import { inkIn, pictureOf } from '../../../../../testing/picture.js';
import { readByOther } from '../../../../../testing/other-reader.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf, pdfOf, stream } from '../../../../../testing/raw-form.js';
import type { CompileOptions } from '../plan/compile.js';
import type { Finish } from '../finish.js';
import { compileTemplate } from '../plan/compile.js';
import { fillCopy } from './fill.js';
import { inspectTemplate } from '../read/inspect.js';
import { readValues } from '../read/read.js';
import type { FieldValues } from '../value.js';

let options: CompileOptions;
beforeAll(async () => {
  options = { fonts: await testFonts(), faces: testFaces() };
});
const fill = async (
  pdf: Uint8Array,
  values: FieldValues,
  finish: Finish = 'flattened',
  more: Partial<CompileOptions> = {},
): Promise<Uint8Array> =>
  fillCopy(await compileTemplate(pdf, { ...options, ...more, finish, characters: [JSON.stringify(values)] }), values).bytes;
const text = (name: string, rect: string, more = ''): string => `/FT/Tx/T(${name})/Rect[${rect}]${more}`;
const latin = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');
const hex = (word: string): string => Buffer.from(word).toString('hex');
const look = (grey: number): string => stream('/Type/XObject/Subtype/Form/BBox[0 0 20 20]', `${grey} g 0 0 20 20 re f`);
const finishes: Finish[] = ['flattened', 'locked', 'open'];
const BLACK = 20 * 20 * 4;

describe('buttons', () => {
  const button = (name: string, rect: string, on: string, more = ''): string =>
    `/FT/Btn/T(${name})/Rect[${rect}]/AP<</N<<${on} 7 0 R/Off 8 0 R>>>>/AS/Off${more}`;

  test.each([
    ['with a space', '/Choice#201', 'Choice 1'],
    ['"0"', '/0', '0'],
    ['in UTF-8', '/#c3#bcber', 'über'],
  ])('an on-value %s is found, ticked and read back', async (_name, written, value) => {
    const pdf = formOf([button('a', '10 10 30 30', written), button('b', '50 10 70 30', written)], { more: [look(0), look(1)] });
    expect((await inspectTemplate(pdf)).fields[0]!.onValues).toEqual([value]);
    const flat = await pictureOf(await fill(pdf, { a: value, b: false }));
    expect([inkIn(flat, [10, 10, 30, 30]), inkIn(flat, [50, 10, 70, 30])]).toEqual([BLACK, 0]);
    for (const finish of ['locked', 'open'] as const)
      expect(await readValues(await fill(pdf, { a: true, b: false }, finish))).toEqual({ a: value, b: 'Off' });
  });

  test('radio buttons in unison go on together; others of one group do not', async () => {
    const kids = (flags: number, on: [string, string]): Uint8Array =>
      formOf(
        on.map(
          (state, index) => `/Rect[${10 + index * 40} 10 ${30 + index * 40} 30]/Parent 9 0 R/AP<</N<<${state} 7 0 R/Off 8 0 R>>>>/AS/Off`,
        ),
        { topFields: '9 0 R', more: [look(0), look(1), `<</FT/Btn/T(r)/Ff ${flags}/Kids[5 0 R 6 0 R]>>`] },
      );
    const ink = async (pdf: Uint8Array, value: string): Promise<number[]> => {
      const picture = await pictureOf(await fill(pdf, { r: value }));
      return [inkIn(picture, [10, 10, 30, 30]), inkIn(picture, [50, 10, 70, 30])];
    };
    // Bits 16 radio and 26 radios in unison: ISO 32000-2, table 229.
    expect(await ink(kids((1 << 15) | (1 << 25), ['/same', '/same']), 'same')).toEqual([BLACK, BLACK]);
    expect(await ink(kids(1 << 15, ['/one', '/two']), 'two')).toEqual([0, BLACK]);
  });

  test('a radio button is chosen by the text that /Opt gives it, for its on-values are mere numbers then', async () => {
    const pdf = formOf(
      [0, 1].map((index) => `/Rect[${10 + index * 40} 10 ${30 + index * 40} 30]/Parent 9 0 R/AP<</N<</${index} 7 0 R/Off 8 0 R>>>>/AS/Off`),
      { topFields: '9 0 R', more: [look(0), look(1), `<</FT/Btn/T(r)/Ff ${1 << 15}/Opt[(yearly)(monthly)]/Kids[5 0 R 6 0 R]>>`] },
    );
    const picture = await pictureOf(await fill(pdf, { r: 'monthly' }));
    expect([inkIn(picture, [10, 10, 30, 30]), inkIn(picture, [50, 10, 70, 30])]).toEqual([0, BLACK]);
    expect(await readValues(await fill(pdf, { r: 'monthly' }, 'open'))).toEqual({ r: '1' });
  });

  test.each(finishes)('a tick box without any appearance gets one, %s', async (finish) => {
    const pdf = formOf(['/FT/Btn/T(a)/Rect[10 10 30 30]', '/FT/Btn/T(b)/Rect[50 10 70 30]']);
    const picture = await pictureOf(await fill(pdf, { a: true, b: false }, finish));
    expect(inkIn(picture, [10, 10, 30, 30])).toBeGreaterThan(60);
    expect(inkIn(picture, [50, 10, 70, 30])).toBe(0);
  });
});

describe('fields and their places', () => {
  test.each(finishes)('one field with two widgets shows its value in both, %s', async (finish) => {
    const pdf = formOf(['/Rect[10 10 110 30]/Parent 7 0 R', '/Rect[10 60 110 80]/Parent 7 0 R'], {
      topFields: '7 0 R',
      more: ['<</FT/Tx/T(name)/Kids[5 0 R 6 0 R]>>'],
    });
    const picture = await pictureOf(await fill(pdf, { name: 'WWWW' }, finish));
    expect(inkIn(picture, [10, 10, 110, 30])).toBeGreaterThan(100);
    expect(inkIn(picture, [10, 60, 110, 80])).toBeGreaterThan(100);
  });

  test('two fields of one name that stand apart are filled together and read back as one', async () => {
    const pdf = formOf([text('a', '10 10 110 30'), text('a', '10 60 110 80')]);
    const open = await fill(pdf, { a: 'both' }, 'open');
    expect(await readValues(open)).toEqual({ a: 'both' });
    expect(latin(open).split(`/V<${hex('both')}>`)).toHaveLength(3);
  });

  test('a widget outside the field tree is taken into it, so that another reader sees the field too', async () => {
    const pdf = formOf([text('in', '10 10 110 30'), text('out', '10 60 110 80')], { topFields: '5 0 R' });
    const open = await fill(pdf, { in: 'one', out: 'two' }, 'open');
    expect((await inspectTemplate(open)).notes.map(({ code }) => code)).not.toContain('stray-widgets');
    expect((await readByOther(open))[0]!.fields.sort()).toEqual(['in', 'out']);
    expect(await readValues(open)).toEqual({ in: 'one', out: 'two' });
  });

  test('a page without contents, and two pages that share theirs, get their values each', async () => {
    const field = (name: string, page: number): string =>
      `<</Type/Annot/Subtype/Widget/F 4/P ${page} 0 R/FT/Tx/T(${name})/Rect[10 10 110 30]>>`;
    const page = (annotation: number, contents: string): string =>
      `<</Type/Page/Parent 2 0 R/MediaBox[0 0 200 100]${contents}/Annots[${annotation} 0 R]>>`;
    const pdf = pdfOf([
      '<</Type/Catalog/Pages 2 0 R/AcroForm<</Fields[6 0 R 7 0 R 8 0 R]/DA(/Helv 10 Tf 0 g)>>>>',
      '<</Type/Pages/Count 3/Kids[3 0 R 4 0 R 5 0 R]>>',
      page(6, ''),
      page(7, '/Contents 9 0 R'),
      page(8, '/Contents 9 0 R'),
      field('a', 3),
      field('b', 4),
      field('c', 5),
      stream('', '0.5 g 150 50 20 20 re f'),
    ]);
    const pages = await readByOther(await fill(pdf, { a: 'first', b: 'second', c: 'third' }));
    expect(pages.map((one) => one.text)).toEqual(['first', 'second', 'third']);
  });

  test('neither DR nor DA: text is drawn in black Helvetica of a size that fits', async () => {
    const pdf = pdfOf([
      '<</Type/Catalog/Pages 2 0 R/AcroForm<</Fields[4 0 R]>>>>',
      '<</Type/Pages/Count 1/Kids[3 0 R]>>',
      '<</Type/Page/Parent 2 0 R/MediaBox[0 0 200 100]/Annots[4 0 R]>>',
      '<</Type/Annot/Subtype/Widget/F 4/FT/Tx/T(a)/Rect[10 10 110 30]>>',
    ]);
    expect((await readByOther(await fill(pdf, { a: 'plain' })))[0]!.text).toBe('plain');
  });

  test.each([90, 180, 270])(
    'a page turned by %i degrees with a widget turned with it shows its text upright to the person',
    async (rotation) => {
      const pdf = formOf([text('a', '100 60 200 100', `/MK<</R ${rotation}>>/DA(/Helv 20 Tf 0 g)`)], { page: `/Rotate ${rotation}` });
      const picture = await pictureOf(await fill(pdf, { a: 'L' }));
      // An upright L has its ink at the left and at the bottom of what is drawn.
      const dark: [number, number][] = [];
      for (let y = 0; y < picture.height; y++)
        for (let x = 0; x < picture.width; x++) if (picture.data[(y * picture.width + x) * 4]! < 128) dark.push([x, y]);
      const [xs, ys] = [dark.map(([x]) => x), dark.map(([, y]) => y)];
      const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
      const share = (test: (x: number, y: number) => boolean): number => dark.filter(([x, y]) => test(x, y)).length / dark.length;
      expect(dark.length).toBeGreaterThan(50);
      expect(share((x) => x < (left + right) / 2)).toBeGreaterThan(0.6);
      expect(share((_, y) => y > (top + bottom) / 2)).toBeGreaterThan(0.6);
    },
  );
});

describe('what is seen and what is not', () => {
  test('hidden and no-view fields are not drawn; in a copy that keeps its form they hold their value', async () => {
    const pdf = formOf([text('hidden', '10 10 110 30', '/F 2'), text('noview', '10 60 110 80', '/F 32'), text('shown', '10 110 110 130')]);
    const values = { hidden: 'one', noview: 'two', shown: 'three' };
    expect((await readByOther(await fill(pdf, values)))[0]!.text).toBe('three');
    const open = await fill(pdf, values, 'open');
    expect(await readValues(open)).toEqual(values);
    // The print flag and its neighbours stay as the author set them.
    expect((await inspectTemplate(open)).fields.map(({ widgets }) => widgets[0]!.annotFlags)).toEqual([2, 32, 4]);
  });

  test('a field in a layer stays in that layer when it is drawn in (ISO 32000-2, 8.11.3)', async () => {
    const pdf = formOf([text('a', '10 10 110 30', '/OC 6 0 R')], {
      more: ['<</Type/OCG/Name(Layer)>>'],
      catalog: '/OCProperties<</OCGs[6 0 R]/D<</OFF[6 0 R]>>>>',
    });
    const picture = await pictureOf(await fill(pdf, { a: 'WWWWW' }));
    expect(inkIn(picture, [10, 10, 110, 30])).toBe(0);
    expect(latin(await fill(pdf, { a: 'WWWWW' }))).toMatch(/\/OC \/MbC0 BDC/);
  });

  test.each([
    ['left open', 'q 0.5 0 0 0.5 0 0 cm q'],
    ['closed too often', 'Q Q 0.2 G'],
  ])('graphics states that the page has %s do not move what is filled in', async (_name, body) => {
    const pdf = formOf([text('a', '100 60 200 80', '/DA(/Helv 10 Tf 0 g)')], { page: '/Contents 6 0 R', more: [stream('', body)] });
    const [page] = await readByOther(await fill(pdf, { a: 'placed' }));
    expect(page!.pieces[0]).toMatchObject({ text: 'placed', x: 102 });
  });

  test('a comb with more characters than cells draws what has a cell, and says so', async () => {
    const compiled = await compileTemplate(formOf([text('a', '0 100 100 120', `/MaxLen 3/Ff ${1 << 24}`)]), options);
    const { bytes, notes } = fillCopy(compiled, { a: '12345' });
    expect(notes).toMatchObject([{ field: 'a', fit: 'overflows', lost: '45' }]);
    expect((await readByOther(bytes))[0]!.text.replace(/\s/g, '')).toBe('123');
  });

  test.each([
    ['/S/D/D[2 1]', 'dashed'],
    ['/S/B', 'beveled'],
    ['/S/I', 'inset'],
    ['/S/U', 'underlined'],
    ['/S/S', 'solid'],
  ])('a border of style %s is drawn %s', async (style) => {
    const pdf = formOf([text('a', '20 20 120 60', `/MK<</BC[0]/BG[1]>>/BS<</W 2${style}>>`)]);
    const picture = await pictureOf(await fill(pdf, { a: '' }));
    expect(inkIn(picture, [20, 20, 120, 23])).toBeGreaterThan(100);
    expect(inkIn(picture, [20, 57, 120, 60]) > 50).toBe(!style.includes('/U'));
  });
});

describe('the rest of the form', () => {
  const rest = (): Uint8Array => {
    const pdf = formOf([text('a', '10 100 110 120', '/AA<</K<</S/JavaScript/JS(boom)>>>>/StructParent 0')], {
      form: '/XFA(xfa-packet)/NeedAppearances true',
      catalog:
        '/PageLabels<</Nums[0<</S/r>>]>>/Outlines 7 0 R/Names<</EmbeddedFiles<</Names[(note.txt)8 0 R]>>/JavaScript<</Names[(x)<</S/JavaScript/JS(boom)>>]>>>>' +
        '/StructTreeRoot 10 0 R/MarkInfo<</Marked true>>',
      more: [
        '<</Type/Annot/Subtype/Link/Rect[0 0 9 9]/A<</S/URI/URI(https://larkmere.example)>>>>',
        '<</Type/Outlines/First 9 0 R/Last 9 0 R/Count 1>>',
        '<</Type/Filespec/F(note.txt)>>',
        '<</Title(Chapter)/Parent 7 0 R/Dest[3 0 R/Fit]>>',
        '<</Type/StructTreeRoot/K 11 0 R>>',
        '<</Type/StructElem/S/Document/P 10 0 R/K[12 0 R]>>',
        '<</Type/StructElem/S/Form/P 11 0 R/K[<</Type/OBJR/Obj 5 0 R/Pg 3 0 R>>]>>',
      ],
    });
    return Uint8Array.from(latin(pdf).replace('/Annots[5 0 R]', '/Annots[5 0 R 6 0 R]'), (char) => char.charCodeAt(0));
  };

  test.each(finishes)('links, page labels, outlines and attachments stay, %s', async (finish) => {
    const file = latin(await fill(rest(), { a: 'x' }, finish));
    for (const kept of ['larkmere.example', 'Chapter', 'note.txt']) expect(file).toContain(hex(kept));
    expect(file).toMatch(/\/PageLabels/);
    expect(file).not.toContain(hex('xfa-packet'));
    expect(file).not.toContain('NeedAppearances');
    // An open form keeps what its author scripted; the other two must not change any more.
    expect(file.includes(hex('boom'))).toBe(finish === 'open');
  });

  test('no tag of a flattened copy points at a field that is gone', async () => {
    const file = latin(await fill(rest(), { a: 'x' }));
    expect(file).toContain('/StructTreeRoot');
    expect(file).not.toContain('OBJR');
  });

  test.each(finishes)('every reference leads to an object, %s', async (finish) => {
    const file = latin(await fill(rest(), { a: 'Łąk' }, finish));
    const there = new Set([...file.matchAll(/(?<=^|\n)(\d+) 0 obj/g)].map(([, number]) => number));
    const wanted = [...file.replace(/stream\n[\s\S]*?endstream/g, '').matchAll(/\b(\d+) 0 R/g)].map(([, number]) => number);
    expect(wanted.filter((number) => !there.has(number))).toEqual([]);
  });

  test('a signed field is told, and copies do not claim to be signed', async () => {
    const pdf = formOf(['/FT/Sig/T(s)/Rect[10 10 110 30]/V 7 0 R', text('a', '10 60 110 80')], {
      more: ['<</Type/Sig/Filter/X/Contents<00>>>'],
      form: '/SigFlags 3',
    });
    expect((await inspectTemplate(pdf)).notes).toContainEqual({ code: 'signed', fields: ['s'] });
    for (const finish of finishes) expect(latin(await fill(pdf, { a: 'x' }, finish))).not.toMatch(/\/Sig\/Filter|SigFlags|\/Type ?\/Sig\b/);
  });
});

describe('fonts that the form brings', () => {
  const withFont = (font: readonly string[]): Uint8Array => {
    const pdf = latin(formOf([text('a', '10 100 290 120', '/DA(/Own 10 Tf 0 g)')], { more: font })).replace(
      '<</Helv 4 0 R>>',
      '<</Helv 4 0 R/Own 6 0 R>>',
    );
    return Uint8Array.from(pdf, (char) => char.charCodeAt(0));
  };
  const program = stream('/Length1 4', 'fake');

  test('an embedded font with a known encoding is used, with the widths that it says', async () => {
    const pdf = withFont([
      '<</Type/Font/Subtype/TrueType/BaseFont/Larkmere/FirstChar 65/LastChar 67/Widths[700 700 700]/Encoding/WinAnsiEncoding/FontDescriptor 7 0 R>>',
      '<</Type/FontDescriptor/FontName/Larkmere/Flags 32/Ascent 800/Descent -200/FontFile2 8 0 R>>',
      program,
    ]);
    const file = latin(await fill(pdf, { a: 'ABC' }));
    expect(file).toMatch(/\/MbF0 10 Tf\n1 0 0 1 12 [\d.]+ Tm\n\(ABC\) Tj/);
    // A letter that its widths do not reach is drawn by the nearest standard font instead of a gap.
    expect(latin(await fill(pdf, { a: 'XYZ' }))).toMatch(/\/MbHelvetica 10 Tf/);
    expect((await inspectTemplate(pdf)).notes.map(({ code }) => code)).not.toContain('fonts-missing');
  });

  test('a composite font that is not embedded is told, and the value is drawn by a face that is there', async () => {
    const pdf = withFont([
      '<</Type/Font/Subtype/Type0/BaseFont/Elsewhere/Encoding/Identity-H/DescendantFonts[7 0 R]>>',
      '<</Type/Font/Subtype/CIDFontType0/BaseFont/Elsewhere/CIDSystemInfo<</Registry(Adobe)/Ordering(Japan1)/Supplement 6>>/FontDescriptor 8 0 R>>',
      '<</Type/FontDescriptor/FontName/Elsewhere/Flags 4>>',
    ]);
    expect((await inspectTemplate(pdf)).notes).toContainEqual({ code: 'fonts-missing', fields: ['a'] });
    expect((await readByOther(await fill(pdf, { a: 'Ρήγα' })))[0]!.text).toContain('Ρήγα');
  });
});
