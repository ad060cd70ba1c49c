/** Builds PDFs from object bodies as written, for forms that no library would write. Object 1 is the catalog. */
export function pdfOf(objects: readonly string[]): Uint8Array {
  let file = '%PDF-1.7\n%\u00e2\u00e3\u00cf\u00d3\n';
  const offsets = objects.map((body, index) => {
    const offset = file.length;
    file += `${index + 1} 0 obj\n${body}\nendobj\n`;
    return offset;
  });
  const start = file.length;
  file += `xref\n0 ${objects.length + 1}\n0000000000 65535 f\r\n${offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n\r\n`).join('')}`;
  file += `trailer\n<</Size ${objects.length + 1}/Root 1 0 R>>\nstartxref\n${start}\n%%EOF\n`;
  return Uint8Array.from(file, (char) => char.charCodeAt(0));
}

/**
 * A form of one page (300 x 200 points) with the fields given as bodies of merged field and widget dictionaries.
 * Object 4 is Helvetica; further objects may be given after the fields, numbered from 5 + the number of fields.
 */
export function formOf(
  fields: readonly string[],
  {
    more = [],
    page = '',
    form = '',
    catalog = '',
    topFields,
  }: { more?: readonly string[]; page?: string; form?: string; catalog?: string; topFields?: string } = {},
): Uint8Array {
  const refs = fields.map((_, index) => `${5 + index} 0 R`).join(' ');
  return pdfOf([
    `<</Type/Catalog/Pages 2 0 R/AcroForm<</Fields[${topFields ?? refs}]/DA(/Helv 0 Tf 0 g)/DR<</Font<</Helv 4 0 R>>>>${form}>>${catalog}>>`,
    '<</Type/Pages/Count 1/Kids[3 0 R]>>',
    `<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Resources<<>>/Annots[${refs}]${page}>>`,
    '<</Type/Font/Subtype/Type1/BaseFont/Helvetica/Encoding/WinAnsiEncoding>>',
    ...fields.map((field) => `<</Type/Annot/Subtype/Widget/F 4/P 3 0 R${field}>>`),
    ...more,
  ]);
}

export const stream = (dict: string, body: string): string => `<<${dict}/Length ${body.length}>>\nstream\n${body}\nendstream`;
