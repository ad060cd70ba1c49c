/** Names of the fields of an address sheet. */
export const ADDRESS_FIELDS = { returnLine: 'returnLine', address: 'address' } as const;

const MM = 72 / 25.4;
/** ISO 216, A4, in points. */
const [WIDTH, HEIGHT] = [210 * MM, 297 * MM];
/**
 * DIN 5008, form B, in millimetres from the upper left corner: the address field begins 45 mm from the top and 20 mm from the left, is 85 mm wide and 45 mm high;
 * its upper 17.7 mm are for the return line and remarks, the 27.3 mm below for the address; text begins 5 mm further in.
 */
const window = { left: 25, width: 80, returnTop: 45, returnHeight: 5, addressTop: 62.7, addressHeight: 27.3 };
/** DIN 5008, form B: fold marks at 105 and 210 mm, the hole mark in the middle. */
const marks: [from: number, length: number][] = [
  [105, 5],
  [148.5, 8],
  [210, 5],
];

const n = (value: number): string => value.toFixed(2);
const box = (top: number, height: number): string =>
  `[${n(window.left * MM)} ${n(HEIGHT - (top + height) * MM)} ${n((window.left + window.width) * MM)} ${n(HEIGHT - top * MM)}]`;

/** A page with the address where the window of an envelope is, as a fillable PDF: filled like any template, so every script is drawn. */
export function addressSheet(): Uint8Array {
  const lines = marks
    .map(([from, length]) => `${n(5 * MM)} ${n(HEIGHT - from * MM)} m ${n((5 + length) * MM)} ${n(HEIGHT - from * MM)} l S`)
    .join('\n');
  const content = `0.6 G 0.4 w\n${lines}\n`;
  const field = (name: string, rect: string, size: number, flags: number): string =>
    `<</Type/Annot/Subtype/Widget/FT/Tx/T(${name})/Rect${rect}/F 4/P 3 0 R/Ff ${flags}/DA(/Helv ${size} Tf 0 g)>>`;
  const objects = [
    '<</Type/Catalog/Pages 2 0 R/AcroForm<</Fields[5 0 R 6 0 R]/DR<</Font<</Helv 7 0 R>>>>/DA(/Helv 10 Tf 0 g)>>>>',
    '<</Type/Pages/Count 1/Kids[3 0 R]>>',
    `<</Type/Page/Parent 2 0 R/MediaBox[0 0 ${n(WIDTH)} ${n(HEIGHT)}]/Contents 4 0 R/Resources<</Font<</Helv 7 0 R>>>>/Annots[5 0 R 6 0 R]>>`,
    `<</Length ${content.length}>>\nstream\n${content}endstream`,
    field(ADDRESS_FIELDS.returnLine, box(window.returnTop + 12.7, window.returnHeight), 7, 0),
    // ISO 32000-2, table 231: bit position 13, several lines.
    field(ADDRESS_FIELDS.address, box(window.addressTop, window.addressHeight), 10.5, 1 << 12),
    '<</Type/Font/Subtype/Type1/BaseFont/Helvetica/Encoding/WinAnsiEncoding>>',
  ];
  let text = '%PDF-1.7\n';
  const offsets: number[] = [];
  objects.forEach((object, index) => {
    offsets.push(text.length);
    text += `${index + 1} 0 obj\n${object}\nendobj\n`;
  });
  const start = text.length;
  text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n \n`).join('')}`;
  text += `trailer\n<</Size ${objects.length + 1}/Root 1 0 R>>\nstartxref\n${start}\n%%EOF\n`;
  return Uint8Array.from(text, (char) => char.charCodeAt(0));
}
