import { readByOther } from '../../../../../testing/other-reader.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf } from '../../../../../testing/raw-form.js';
import { kindWords } from '../field.js';
import { inspectTemplate } from '../read/inspect.js';
import { markedPdf } from './marked-pdf.js';

test('a marked form shows each name in its box, the end of a long one, a number where it is too narrow, and an index that another reader finds', async () => {
  const form = formOf([
    '/FT/Tx/T(plot)/TU(Plot number)/Rect[40 150 240 170]/DA(/Helv 10 Tf 0 g)',
    '/FT/Tx/T(topmostSubform.PageOne.tenant_name)/Rect[40 110 240 130]/DA(/Helv 10 Tf 0 g)',
    '/FT/Btn/T(agrees)/Rect[40 80 52 92]/AP<</N<</Yes null/Off null>>>>',
    '/FT/Tx/T<FEFF6B69>/Rect[40 40 240 60]/DA(/Helv 10 Tf 0 g)',
  ]);
  const described = await inspectTemplate(form, 'form.pdf');
  const marked = await markedPdf(form, described, { fonts: await testFonts(), faces: testFaces(), kindOf: kindWords });
  const [page, index] = await readByOther(marked);
  expect(page!.fields).toEqual([]);
  expect(page!.pieces.map(({ text }) => text)).toEqual(expect.arrayContaining(['plot', '…tenant_name', '3']));
  const at = (text: string): { x: number; y: number } => page!.pieces.find((one) => one.text === text)!;
  expect(at('plot').y).toBeGreaterThan(150);
  expect(at('plot').y).toBeLessThan(170);
  for (const words of ['topmostSubform.PageOne.tenant_name', 'Plot number', 'tick box', 'agrees']) expect(index!.text).toContain(words);
});
