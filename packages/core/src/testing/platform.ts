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
  ['NotoSans-Regular', '@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf'],
  ['NotoSansHebrew-Regular', '@expo-google-fonts/noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf'],
  ['NotoSansArabic-Regular', '@expo-google-fonts/noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf'],
];

export const testFaces = (): FaceFile[] => faces.map(([name, path]) => ({ name, bytes: new Uint8Array(readFileSync(resolve(path))) }));
