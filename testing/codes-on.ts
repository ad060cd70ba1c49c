import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pictureOf } from './picture.js';

/** The codes that zxing, a reader that is not ours, finds on a page as PDFium draws it. @param page 0-based */
export async function codesOn(pdf: Uint8Array, page = 0): Promise<{ format: string; text: string }[]> {
  const { prepareZXingModule, readBarcodes } = await import('zxing-wasm/reader');
  const wasm = readFileSync(createRequire(`${process.cwd()}/package.json`).resolve('zxing-wasm/reader/zxing_reader.wasm'));
  prepareZXingModule({ overrides: { wasmBinary: wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.length) as ArrayBuffer } });
  const { width, height, data } = await pictureOf(pdf, page, 4);
  const found = await readBarcodes({ width, height, data: new Uint8ClampedArray(data), colorSpace: 'srgb' } as never, {
    tryHarder: true,
    maxNumberOfSymbols: 5,
  });
  return found.map(({ format, text }) => ({ format, text }));
}
