import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pictureOf } from './picture.js';

/** Begun once for all tests of a file. */
let begun: Promise<typeof import('zxing-wasm/reader')> | null = null;
const reader = (): Promise<typeof import('zxing-wasm/reader')> =>
  (begun ??= import('zxing-wasm/reader').then((module) => {
    const wasm = readFileSync(createRequire(`${process.cwd()}/package.json`).resolve('zxing-wasm/reader/zxing_reader.wasm'));
    const wasmBinary = wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.length) as ArrayBuffer;
    module.prepareZXingModule({ overrides: { wasmBinary } });
    return module;
  }));

/** The codes that zxing, a reader that is not ours, finds on a page as PDFium draws it. @param page 0-based @param scale pixels a point */
export async function codesOn(pdf: Uint8Array, page = 0, scale = 4): Promise<{ format: string; text: string }[]> {
  const { readBarcodes } = await reader();
  const { width, height, data } = await pictureOf(pdf, page, scale);
  const found = await readBarcodes({ width, height, data: new Uint8ClampedArray(data), colorSpace: 'srgb' } as never, {
    tryHarder: true,
    maxNumberOfSymbols: 5,
  });
  return found.map(({ format, text }) => ({ format, text }));
}
