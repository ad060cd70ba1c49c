import { closeSync, existsSync, openSync, readFileSync, readSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { FaceFile, FontEngine } from '@mailbag/core';
import { harfBuzzEngine } from '@mailbag/core';

/** Node has it; its types come only with the DOM's. */
declare const WebAssembly: { instantiate(bytes: Uint8Array): Promise<{ instance: { exports: unknown } }> };

const resolve = createRequire(import.meta.url).resolve;

/** Bundled faces in order of preference, for what the standard fonts lack. All under the SIL Open Font License 1.1. */
export const bundledFaces: { name: string; path: string }[] = [
  ['NotoSans-Regular', 'noto-sans/400Regular/NotoSans_400Regular.ttf'],
  ['NotoSansHebrew-Regular', 'noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf'],
  ['NotoSansArabic-Regular', 'noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf'],
  ['NotoSansDevanagari-Regular', 'noto-sans-devanagari/400Regular/NotoSansDevanagari_400Regular.ttf'],
  ['NotoSansThai-Regular', 'noto-sans-thai/400Regular/NotoSansThai_400Regular.ttf'],
].map(([name, path]) => ({ name: name!, path: resolve(`@expo-google-fonts/${path}`) }));

/** First bytes of a TrueType font file (the sfnt versions of the OpenType specification that hold glyf outlines). */
const isTrueType = (path: string): boolean => {
  const head = Buffer.alloc(4);
  const file = openSync(path, 'r');
  try {
    readSync(file, head, 0, 4, 0);
  } finally {
    closeSync(file);
  }
  return head.readUInt32BE() === 0x00010000 || head.toString('latin1') === 'true';
};

/**
 * Faces that the administrator has put into a folder, such as one for Chinese, Japanese or Korean, in the order of their file names.
 * Files that are no TrueType fonts are left aside. No folder: none.
 */
export function addedFaces(folder: string): { name: string; path: string }[] {
  if (!folder || !existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((file) => /\.ttf$/i.test(file))
    .sort()
    .map((file) => ({ name: file.replace(/\.ttf$/i, '').replace(/[^A-Za-z0-9-]/g, '') || 'Added', path: join(folder, file) }))
    .filter(({ path }) => isTrueType(path));
}

const loaded = new Map<string, Promise<{ fonts: FontEngine; faces: FaceFile[] }>>();

/** Node's side of core's fonts, loaded once a thread. @param folder of faces that are added to the bundled ones */
export function nodeFonts(folder = ''): Promise<{ fonts: FontEngine; faces: FaceFile[] }> {
  let known = loaded.get(folder);
  if (!known) {
    known = (async () => {
      const { instance } = await WebAssembly.instantiate(readFileSync(resolve('harfbuzzjs/dist/harfbuzz-subset.wasm')));
      const fonts = harfBuzzEngine(await import('harfbuzzjs'), instance.exports);
      const faces = [...bundledFaces, ...addedFaces(folder)].map(({ name, path }) => ({ name, bytes: new Uint8Array(readFileSync(path)) }));
      return { fonts, faces };
    })();
    loaded.set(folder, known);
  }
  return known;
}
