import { PDFDocument } from '@cantoo/pdf-lib';
import type { PageMarks } from '../../../page/page-marks.js';
import { pdfOf, stream } from '../../../../../../testing/raw-form.js';
import { pageMarks, pageText } from './page-marks.js';

/** A page with this content, as far as ISO 32000-2, 8 and 9 have it drawn. Object 5 is Helvetica, 6 a form of 10 by 10 with a line and a word. */
async function marks(content: string, page = ''): Promise<PageMarks & { text: string[] }> {
  const pdf = pdfOf([
    '<</Type/Catalog/Pages 2 0 R>>',
    '<</Type/Pages/Count 1/Kids[3 0 R]>>',
    `<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents 4 0 R/Resources<</Font<</F1 5 0 R/F2 7 0 R>>/XObject<</X 6 0 R>>>>${page}>>`,
    stream('', content),
    '<</Type/Font/Subtype/Type1/BaseFont/Helvetica/Encoding/WinAnsiEncoding>>',
    stream(
      '/Type/XObject/Subtype/Form/BBox[0 0 10 10]/Matrix[2 0 0 2 0 0]/Resources<</Font<</F1 5 0 R>>>>',
      '0 5 m 10 5 l S BT /F1 5 Tf 1 1 Td (in) Tj ET',
    ),
    '<</Type/Font/Subtype/Type1/BaseFont/Helvetica-Bold/Encoding/WinAnsiEncoding>>',
  ]);
  const [first] = (await PDFDocument.load(pdf)).getPages();
  return { ...pageMarks(first!), text: pageText(first!).map(({ text }) => text) };
}
const at = ({ pieces }: PageMarks): [string, number, number][] =>
  pieces.map(({ text, x, y }) => [text, Math.round(x * 10) / 10, Math.round(y * 10) / 10]);

describe('text', () => {
  test.each<[string, string, [string, number, number][]]>([
    ['Td moves from line to line', 'BT /F1 10 Tf 20 100 Td (a) Tj 0 -12 Td (b) Tj ET', [['a', 20, 100], ['b', 20, 88]]],
    ['TD sets the leading, T* and the apostrophe go on by it', 'BT /F1 10 Tf 20 100 TD 0 -15 TD (a) Tj T* (b) Tj (c) \' ET', [['a', 20, 85], ['b', 20, 70], ['c', 20, 55]]],
    ['TL sets it too, the quotation mark sets spaces', 'BT /F1 10 Tf 14 TL 20 100 Td (a) Tj 1 2 (b) " ET', [['a', 20, 100], ['b', 20, 86]]],
    ['Tm places', 'BT /F1 10 Tf 1 0 0 1 33 44 Tm (a) Tj ET', [['a', 33, 44]]],
    ['what follows stands behind, by the widths of the font', 'BT /F1 10 Tf 20 100 Td (a) Tj (b) Tj ET', [['a', 20, 100], ['b', 25.6, 100]]],
    ['character spacing counts, and so does scaling', 'BT /F1 10 Tf 2 Tc 50 Tz 20 100 Td (a) Tj (b) Tj ET', [['a', 20, 100], ['b', 23.8, 100]]],
    ['TJ moves back and forth by thousandths', 'BT /F1 10 Tf 20 100 Td [(a) -1000 (b)] TJ ET', [['a', 20, 100], ['b', 35.6, 100]]],
    ['cm moves everything, q and Q keep it', 'q 2 0 0 2 10 20 cm BT /F1 10 Tf 5 5 Td (a) Tj ET Q BT /F1 10 Tf 5 5 Td (b) Tj ET', [['a', 20, 30], ['b', 5, 5]]],
    ['a form brings its own matrix', 'q 1 0 0 1 100 50 cm /X Do Q', [['in', 102, 52]]],
    ['spaces alone are nothing', 'BT /F1 10 Tf 20 100 Td (   ) Tj ET', []],
  ])('%s', async (_, content, wanted) => expect(at(await marks(content))).toEqual(wanted)); // prettier-ignore

  test('its size is that which is seen, its weight that of the font', async () => {
    const { pieces } = await marks('q 2 0 0 2 0 0 cm BT /F2 6 Tf 5 5 Td (a) Tj ET Q BT /F1 6 Tf 5 50 Td (b) Tj ET');
    expect(pieces.map(({ size, isBold }) => [size, isBold])).toEqual([
      [12, true],
      [6, false],
    ]);
  });

  test.each<[string, string, number | null]>([
    ['level', '1 0 0 1', 0],
    ['upwards', '0 1 -1 0', 90],
    ['upside down', '-1 0 0 -1', 180],
    ['downwards', '0 -1 1 0', 270],
    ['a little askew', '1 0.05 -0.05 1', 0],
    ['askew', '0.7 0.7 -0.7 0.7', null],
  ])('%s', async (_, matrix, direction) => {
    const { pieces, text } = await marks(`BT /F1 10 Tf ${matrix} 100 100 Tm (word) Tj ET`);
    expect(pieces.map((piece) => piece.direction)).toEqual(direction === null ? [] : [direction]);
    // What is read back from copies reads from left to right.
    expect(text).toEqual(direction === 0 ? ['word'] : []);
  });
});

describe('lines', () => {
  const line = (x1: number, y1: number, x2: number, y2: number) => ({ x1, y1, x2, y2 });
  test.each<[string, string, PageMarks['segments']]>([
    ['a line that is drawn', '10 20 m 110 20 l S', [line(10, 20, 110, 20)]],
    ['from right to left it is the same', '110 20 m 10 20 l S', [line(10, 20, 110, 20)]],
    ['a box that is drawn has four', '10 20 100 30 re S', [line(10, 20, 110, 20), line(110, 20, 110, 50), line(10, 50, 110, 50), line(10, 20, 10, 50)]],
    ['a path that is closed when it is drawn', '0 0 m 50 0 l 50 50 l 0 50 l s', [line(0, 0, 50, 0), line(50, 0, 50, 50), line(0, 50, 50, 50), line(0, 0, 0, 50)]],
    ['a thin box that is filled is a line', '10 20 100 1 re f', [line(10, 20.5, 110, 20.5)]],
    ['upright too', '10 20 0.5 100 re f', [line(10.25, 20, 10.25, 120)]],
    ['a thick one is none', '10 20 100 30 re f', []],
    ['what only clips is none', '10 20 100 1 re W n', []],
    ['what is askew is none', '10 20 m 110 60 l S', []],
    ['what is very short is none', '10 20 m 12 20 l S', []],
    ['curves are none, the lines around them are', '10 20 m 60 20 l 70 20 80 30 80 40 c 80 90 l S', [line(10, 20, 60, 20), line(80, 40, 80, 90)]],
    ['within a form they are where it is put', 'q 1 0 0 1 100 50 cm /X Do Q', [line(100, 60, 120, 60)]],
    ['turned by a quarter they are upright', 'q 0 1 -1 0 100 0 cm 10 20 m 60 20 l S Q', [line(80, 10, 80, 60)]],
  ])('%s', async (_, content, segments) => expect((await marks(content)).segments).toEqual(segments)); // prettier-ignore
});

test.each(['BT /F1 10 Tf (a) Tj', 'Q Q Q', '/Nope Do', 'BT /Nope 10 Tf 10 10 Td (a) Tj ET', '(((', 'BI /W 1 ID x EI'])(
  'damage is passed over: %s',
  async (content) => expect((await marks(content)).segments).toEqual([]),
);

test('a form that draws itself comes to an end', async () => {
  const pdf = pdfOf([
    '<</Type/Catalog/Pages 2 0 R>>',
    '<</Type/Pages/Count 1/Kids[3 0 R]>>',
    '<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents 4 0 R/Resources<</XObject<</X 5 0 R>>>>>>',
    stream('', '/X Do'),
    stream('/Type/XObject/Subtype/Form/BBox[0 0 10 10]/Resources<</XObject<</X 5 0 R>>>>', '0 0 m 50 0 l S /X Do /X Do'),
  ]);
  const [page] = (await PDFDocument.load(pdf)).getPages();
  expect(pageMarks(page!).segments.length).toBeLessThan(100);
});

describe('shapes', () => {
  test('boxes and circles, with how light they are filled and whether they have an edge', async () => {
    const circle =
      '110 100 m 110 105.5 105.5 110 100 110 c 94.5 110 90 105.5 90 100 c 90 94.5 94.5 90 100 90 c 105.5 90 110 94.5 110 100 c';
    const { shapes } = await marks(
      `20 20 30 10 re S 0.9 g 60 20 30 10 re f 1 0 0 rg 100 20 30 10 re B ${circle} S 0 0 m 40 20 l 20 50 l h f`,
    );
    expect(shapes.map(({ box, isRound, isStroked, fill }) => [box.map(Math.round), isRound, isStroked, fill])).toEqual([
      [[20, 20, 50, 30], false, true, null],
      [[60, 20, 90, 30], false, false, 0.9],
      [[100, 20, 130, 30], false, true, 0.3],
      [[90, 90, 110, 110], true, true, null],
    ]);
  });
  test('dots and dashes in a row are a line, some by themselves are none', async () => {
    const dots = (count: number, y: number): string => Array.from({ length: count }, (_, at) => `${20 + at * 3} ${y} 1 1 re f`).join(' ');
    const { segments } = await marks(`${dots(30, 100)} ${dots(4, 50)}`);
    expect(segments.map(({ x1, x2, y1 }) => [x1, x2, y1])).toEqual([[20, 108, 100.5]]);
  });
  test('where the characters of text end is told where some may be places to write on', async () => {
    const { pieces } = await marks('BT /F1 10 Tf 20 100 Td (a ___) Tj 0 -20 Td (word) Tj ET');
    expect(pieces.map(({ ends }) => ends?.length ?? null)).toEqual([5, null]);
    expect(pieces[0]!.ends!.at(-1)).toBeCloseTo(pieces[0]!.width);
  });
});
