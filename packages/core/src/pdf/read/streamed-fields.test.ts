import { deflateSync } from 'node:zlib';
import { inspectTemplate } from './inspect.js';

/** A form whose field dictionaries are the dictionaries of empty compressed streams. */
function streamedForm(): Uint8Array {
  const empty = deflateSync(Buffer.from(' '));
  const objects = [
    '<</Type/Catalog/Pages 2 0 R/AcroForm 4 0 R>>',
    '<</Type/Pages/Kids[3 0 R]/Count 1>>',
    '<</Type/Page/Parent 2 0 R/MediaBox[0 0 200 200]/Annots[5 0 R 6 0 R]>>',
    '<</Fields[5 0 R 6 0 R]/DA(/Helv 10 Tf 0 g)/DR<<>>',
    '<</Type/Annot/Subtype/Widget/FT/Tx/T(name)/Rect[10 10 110 30]',
    '<</Type/Annot/Subtype/Widget/FT/Btn/T(agreed)/Rect[10 50 30 70]',
  ];
  let text = '%PDF-1.4\n';
  const offsets = objects.map((object, index) => {
    const offset = text.length;
    const body =
      index < 3 ? object : `${object}/Filter/FlateDecode/Length ${empty.length}>>\nstream\n${empty.toString('latin1')}\nendstream`;
    text += `${index + 1} 0 obj\n${body}\nendobj\n`;
    return offset;
  });
  const at = text.length;
  text += `xref\n0 7\n0000000000 65535 f \n${offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n \n`).join('')}`;
  text += `trailer\n<</Size 7/Root 1 0 R>>\nstartxref\n${at}\n%%EOF\n`;
  return new Uint8Array(Buffer.from(text, 'latin1'));
}

test('fields whose dictionaries were written as streams are read', async () => {
  const { fields } = await inspectTemplate(streamedForm());
  expect(fields.map(({ name, kind }) => [name, kind])).toEqual([
    ['name', 'text'],
    ['agreed', 'checkbox'],
  ]);
});
