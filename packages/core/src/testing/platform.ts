import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { harfBuzzEngine } from '../fonts/harfbuzz-engine.js';
import type { FaceFile, FontEngine } from '../platform/ports.js';

const resolve = (path: string): string => createRequire(`${process.cwd()}/package.json`).resolve(path);

/** Node's side of core's ports, for core's own tests. */
export async function testFonts(): Promise<FontEngine> {
  const { instance } = await WebAssembly.instantiate(readFileSync(resolve('harfbuzzjs/dist/harfbuzz-subset.wasm')));
  return harfBuzzEngine(await import('harfbuzzjs'), instance.exports);
}

const faces: [string, string][] = [
  ['NotoSans-Regular', 'noto-sans/400Regular/NotoSans_400Regular.ttf'],
  ['NotoSansHebrew-Regular', 'noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf'],
  ['NotoSansArabic-Regular', 'noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf'],
  ['NotoSansThai-Regular', 'noto-sans-thai/400Regular/NotoSansThai_400Regular.ttf'],
  ['NotoSansArmenian-Regular', 'noto-sans-armenian/400Regular/NotoSansArmenian_400Regular.ttf'],
  ['NotoSansGeorgian-Regular', 'noto-sans-georgian/400Regular/NotoSansGeorgian_400Regular.ttf'],
  ['NotoSansBengali-Regular', 'noto-sans-bengali/400Regular/NotoSansBengali_400Regular.ttf'],
  ['NotoSansTamil-Regular', 'noto-sans-tamil/400Regular/NotoSansTamil_400Regular.ttf'],
];

export const testFaces = (): FaceFile[] =>
  faces.map(([name, path]) => ({ name, bytes: new Uint8Array(readFileSync(resolve(`@expo-google-fonts/${path}`))) }));
