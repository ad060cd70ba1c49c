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
  ['NotoSansArmenian-Regular', 'noto-sans-armenian/400Regular/NotoSansArmenian_400Regular.ttf'],
  ['NotoSansGeorgian-Regular', 'noto-sans-georgian/400Regular/NotoSansGeorgian_400Regular.ttf'],
  ['NotoSansBengali-Regular', 'noto-sans-bengali/400Regular/NotoSansBengali_400Regular.ttf'],
  ['NotoSansTamil-Regular', 'noto-sans-tamil/400Regular/NotoSansTamil_400Regular.ttf'],
  ['NotoSansMath-Regular', 'noto-sans-math/400Regular/NotoSansMath_400Regular.ttf'],
  ['NotoSansSymbols2-Regular', 'noto-sans-symbols-2/400Regular/NotoSansSymbols2_400Regular.ttf'],
].map(([name, path]) => ({ name: name!, path: resolve(`@expo-google-fonts/${path}`) }));

/** First bytes of a font file as the OpenType specification gives them: TrueType outlines, a collection, PostScript outlines. */
function kindOf(path: string): 'truetype' | 'collection' | 'postscript' | null {
  const head = Buffer.alloc(4);
  const file = openSync(path, 'r');
  try {
    readSync(file, head, 0, 4, 0);
  } finally {
    closeSync(file);
  }
  const text = head.toString('latin1');
  if (head.readUInt32BE() === 0x00010000 || text === 'true') return 'truetype';
  return text === 'ttcf' ? 'collection' : text === 'OTTO' ? 'postscript' : null;
}

/** Whether the first face of a collection has TrueType outlines: it names a table of them. */
function hasTrueTypeOutlines(path: string): boolean {
  const bytes = readFileSync(path);
  const at = bytes.length >= 16 ? bytes.readUInt32BE(12) : bytes.length;
  if (at + 12 > bytes.length) return false;
  const tables = bytes.readUInt16BE(at + 4);
  return Array.from({ length: tables }, (_, index) => bytes.toString('latin1', at + 12 + index * 16, at + 16 + index * 16)).includes(
    'glyf',
  );
}

/** A file in the folder of faces that copies cannot be drawn with, and why, as a sentence. */
export interface RefusedFace {
  file: string;
  why: string;
}

/** Why a font file is no use; null: it is. */
function faultOf(path: string, file: string): string | null {
  const kind = kindOf(path);
  if (kind === 'truetype' || (kind === 'collection' && hasTrueTypeOutlines(path))) return null;
  return kind === null
    ? `“${file}” is no font file.`
    : `“${file}” has PostScript outlines, which copies cannot carry. Convert it to TrueType (.ttf), or take another face.`;
}

/**
 * Faces that the administrator has put into a folder, such as one for Chinese, Japanese or Korean, in the order of their file names: TrueType fonts, and
 * the first face of collections. No folder: none.
 */
export function addedFaces(folder: string): { faces: { name: string; path: string }[]; refused: RefusedFace[] } {
  const files = !folder || !existsSync(folder) ? [] : readdirSync(folder).filter((file) => /\.(ttf|ttc|otf|otc)$/i.test(file));
  const looked = files.sort().map((file) => ({ file, path: join(folder, file), why: faultOf(join(folder, file), file) }));
  return {
    faces: looked
      .filter(({ why }) => why === null)
      .map(({ file, path }) => ({ name: file.replace(/\.\w+$/, '').replace(/[^A-Za-z0-9-]/g, '') || 'Added', path })),
    refused: looked.flatMap(({ file, why }) => (why === null ? [] : [{ file, why }])),
  };
}

/** A face whose file is read when it is first needed: most batches need few of them. */
const lazyFace = ({ name, path }: { name: string; path: string }): FaceFile => {
  let bytes: Uint8Array | null = null;
  return {
    name,
    get bytes() {
      return (bytes ??= new Uint8Array(readFileSync(path)));
    },
  };
};

const loaded = new Map<string, Promise<{ fonts: FontEngine; faces: FaceFile[] }>>();

/** Node's side of core's fonts, loaded once a thread. @param folder of faces that are added to the bundled ones */
export function nodeFonts(folder = ''): Promise<{ fonts: FontEngine; faces: FaceFile[] }> {
  let known = loaded.get(folder);
  if (!known) {
    known = (async () => {
      const { instance } = await WebAssembly.instantiate(readFileSync(resolve('harfbuzzjs/dist/harfbuzz-subset.wasm')));
      const fonts = harfBuzzEngine(await import('harfbuzzjs'), instance.exports);
      const faces = [...bundledFaces, ...addedFaces(folder).faces].map(lazyFace);
      return { fonts, faces };
    })();
    loaded.set(folder, known);
  }
  return known;
}
