import { PDFArray, PDFDict, PDFDocument, PDFName, PDFNumber } from '@cantoo/pdf-lib';
import type { PDFRawStream } from '@cantoo/pdf-lib';
import { readByOther } from '../../../../../testing/other-reader.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf, stream } from '../../../../../testing/raw-form.js';
import { compileTemplate } from './compile.js';
import { fillCopy } from '../fill/fill.js';

/** A tagged form: a document with a paragraph for each of two fields, which refer to the widgets (ISO 32000-2, 14.7.5.3). */
const tagged = (kids = '9 0 R 10 0 R'): Uint8Array =>
  formOf(
    [
      '/FT/Tx/T(name)/Rect[10 60 110 80]/DA(/Helv 10 Tf 0 g)/MK<</BC[0]>>/StructParent 0',
      '/FT/Tx/T(town)/Rect[10 20 110 40]/DA(/Helv 10 Tf 0 g)/Ff 4096/StructParent 1',
    ],
    {
      catalog: '/MarkInfo<</Marked true>>/StructTreeRoot 7 0 R/Metadata 11 0 R',
      more: [
        '<</Type/StructTreeRoot/K 8 0 R/ParentTree<</Nums[0 9 0 R 1 10 0 R]>>/ParentTreeNextKey 2>>',
        `<</Type/StructElem/S/Document/P 7 0 R/K[${kids}]>>`,
        '<</Type/StructElem/S/Form/P 8 0 R/Alt(Your name)/K<</Type/OBJR/Obj 5 0 R/Pg 3 0 R>>>>',
        '<</Type/StructElem/S/Form/P 8 0 R/K[<</Type/OBJR/Obj 6 0 R/Pg 3 0 R>>]>>',
        stream(
          '/Type/Metadata/Subtype/XML',
          '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:Description pdfaid:part="2"><pdfaid:conformance>B</pdfaid:conformance>kept</rdf:Description></x:xmpmeta>',
        ),
      ],
    },
  );

/**
 * The texts in the order of the structure tree, as ISO 32000-2, 14.7.5.2.2 lets a reader find them: an element's marked-content reference names the stream and the
 * number in it, and the stream's own entry in the parent tree names the element.
 */
async function readAloud(bytes: Uint8Array): Promise<string[]> {
  const doc = await PDFDocument.load(bytes);
  const name = (text: string): PDFName => PDFName.of(text);
  const root = doc.catalog.lookup(name('StructTreeRoot'), PDFDict);
  const numbers = root.lookup(name('ParentTree'), PDFDict).lookup(name('Nums'), PDFArray);
  const parentsOf = (key: number): PDFArray => {
    for (let index = 0; index < numbers.size(); index += 2)
      if (numbers.lookup(index, PDFNumber).asNumber() === key) return numbers.lookup(index + 1, PDFArray);
    throw new Error(`the parent tree has no ${key}`);
  };
  const texts: string[] = [];
  const walk = (element: PDFDict): void => {
    const kids = element.lookup(name('K'));
    for (const kid of kids instanceof PDFArray ? kids.asArray().map((_, index) => kids.lookup(index)) : [kids]) {
      if (!(kid instanceof PDFDict)) continue;
      if (!kid.has(name('MCID'))) {
        walk(kid);
        continue;
      }
      const number = kid.lookup(name('MCID'), PDFNumber).asNumber();
      const stream = kid.lookup(name('Stm')) as PDFRawStream;
      const parents = parentsOf(stream.dict.lookup(name('StructParents'), PDFNumber).asNumber());
      expect(parents.lookup(number)).toBe(element);
      const content = Buffer.from(stream.getContents()).toString('latin1');
      const marked = new RegExp(`<</MCID ${number}>>BDC([^]*?)EMC`).exec(content);
      texts.push(marked?.[1]?.split('(')[1]?.split(')')[0] ?? '');
    }
  };
  walk(root.lookup(name('K'), PDFDict));
  return texts;
}

test('each value stands in the structure element of its field, in the order of the document', async () => {
  const compiled = await compileTemplate(tagged(), { fonts: await testFonts(), faces: testFaces(), given: ['name', 'town'] });
  const { bytes } = fillCopy(compiled, { name: 'Ada', town: 'Ely' });
  expect(await readAloud(bytes)).toEqual(['Ada', 'Ely']);
  expect((await readByOther(bytes))[0]!.pieces.map(({ text }) => text).sort()).toEqual(['Ada', 'Ely']);
  const text = Buffer.from(bytes).toString('latin1');
  expect(text).toContain('/Artifact BMC');
  expect(text).not.toContain('OBJR');
});

test('a value whose field has no place in the structure is read after all others', async () => {
  for (const [kids, read] of [
    ['10 0 R', ['Ely', 'Ada']],
    ['', ['Ada', 'Ely']],
  ] as const) {
    const compiled = await compileTemplate(tagged(kids), { fonts: await testFonts(), faces: testFaces(), given: ['name', 'town'] });
    expect(await readAloud(fillCopy(compiled, { name: 'Ada', town: 'Ely' }).bytes)).toEqual(read);
  }
});

test('a copy does not claim to be PDF/A any more (ISO 19005-1, 6.7.11), and keeps the rest of its metadata', async () => {
  for (const finish of ['flattened', 'open'] as const) {
    const compiled = await compileTemplate(tagged(), { fonts: await testFonts(), faces: testFaces(), finish });
    const text = Buffer.from(fillCopy(compiled, { name: 'Ada' }).bytes).toString('latin1');
    expect(text).not.toContain('pdfaid:');
    expect(text).toContain('kept</rdf:Description>');
  }
});
