/** Addresses of the fonts, tables of characters and decoders of pictures that pdf.js asks for by their names; they ship with the page. */
const shipped = import.meta.glob('/../../node_modules/pdfjs-dist/{standard_fonts/*.{pfb,ttf},wasm/*.wasm,cmaps/*.bcmap}', {
  query: '?url&no-inline',
  import: 'default',
  eager: true,
}) as Record<string, string>;
const addresses = new Map(Object.entries(shipped).map(([path, address]) => [path.split('/').at(-1)!, address]));

/** @see BinaryDataFactory in the API of pdf.js */
export class ShippedFiles {
  async fetch({ filename }: { filename: string }): Promise<Uint8Array> {
    const address = addresses.get(filename);
    if (address === undefined) throw new Error(`no file ${filename}`);
    return new Uint8Array(await (await fetch(address)).arrayBuffer());
  }
}
