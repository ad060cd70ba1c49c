import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
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

let loaded: Promise<{ fonts: FontEngine; faces: FaceFile[] }> | null = null;

/** Node's side of core's fonts, loaded once a thread. */
export function nodeFonts(): Promise<{ fonts: FontEngine; faces: FaceFile[] }> {
  loaded ??= (async () => {
    const { instance } = await WebAssembly.instantiate(readFileSync(resolve('harfbuzzjs/dist/harfbuzz-subset.wasm')));
    const fonts = harfBuzzEngine(await import('harfbuzzjs'), instance.exports);
    return { fonts, faces: bundledFaces.map(({ name, path }) => ({ name, bytes: new Uint8Array(readFileSync(path)) })) };
  })();
  return loaded;
}
