/** Addresses of the fonts, tables of characters and decoders of pictures that pdf.js asks for by their names; they ship with the application. */
const shipped = import.meta.glob('/../../node_modules/pdfjs-dist/{standard_fonts/*.{pfb,ttf},wasm/*.wasm,cmaps/*.bcmap}', {
  query: '?url&no-inline',
  import: 'default',
  eager: true,
}) as Record<string, string>;

export const shippedAs: ReadonlyMap<string, string> = new Map(
  Object.entries(shipped).map(([path, address]) => [path.split('/').at(-1)!, address]),
);
