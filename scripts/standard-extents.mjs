import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { Encodings } from '@pdf-lib/standard-fonts';

/**
 * Writes packages/core/src/pdf/fill/appearance/standard-extents.ts: how high and how low each character of the standard fonts is drawn, from the
 * Adobe Core 14 font metrics (AFM files) that pdfkit ships. Slanted faces are as high as the upright ones they are made of.
 */
const data = join(dirname(createRequire(import.meta.url).resolve('pdfkit')), 'data');
const faces = ['Helvetica', 'Helvetica-Bold', 'Times-Roman', 'Times-Bold', 'Times-Italic', 'Times-BoldItalic', 'Courier', 'Courier-Bold'];
const nameOf = new Map();
for (const point of Encodings.WinAnsi.supportedCodePoints) {
  const { code, name } = Encodings.WinAnsi.encodeUnicodeCodePoint(point);
  if (code >= 32 && !nameOf.has(code)) nameOf.set(code, name);
}
const digits = (value) => (value + 300).toString(36).padStart(2, '0');
const lines = faces.map((face) => {
  const boxes = new Map(
    [...readFileSync(join(data, `${face}.afm`), 'latin1').matchAll(/N (\S+) ; B (\S+) (\S+) (\S+) (\S+)/g)].map(
      ([, name, , low, , high]) => [name, [Number(high), Number(low)]],
    ),
  );
  let text = '';
  for (let code = 32; code < 256; code++) {
    const [high, low] = boxes.get(nameOf.get(code)) ?? [0, 0];
    text += digits(high) + digits(low);
  }
  return `  '${face}':\n    '${text}',`;
});
writeFileSync(
  new URL('../packages/core/src/pdf/fill/appearance/standard-extents.ts', import.meta.url),
  `// Written by scripts/standard-extents.mjs from the Adobe Core 14 font metrics; do not change by hand.

/** Codes 32 to 255 of WinAnsiEncoding: highest and lowest point of ink, each as two digits to the base 36 of its thousandths of the em plus 300. */
export const standardExtents: Readonly<Record<string, string>> = {
${lines.join('\n').replace(/'(Helvetica|Courier)':/g, '$1:')}
};
`,
);
