import type { FaceFile, FontEngine } from '@mailbag/core';
import { harfBuzzEngine } from '@mailbag/core';
import subsetUrl from 'harfbuzzjs/dist/harfbuzz-subset.wasm?url';

let loaded: Promise<{ fonts: FontEngine; faces: FaceFile[] }> | null = null;

/** The browser's side of core's fonts; asked for once, and only when a value needs more than the standard fonts. */
export function browserFonts(): Promise<{ fonts: FontEngine; faces: FaceFile[] }> {
  loaded ??= (async () => {
    const [{ instance }, hb, names] = await Promise.all([
      WebAssembly.instantiateStreaming(fetch(subsetUrl)),
      import('harfbuzzjs'),
      fetch('/api/faces').then((answer) => answer.json() as Promise<string[]>),
    ]);
    const faces = await Promise.all(
      names.map(async (name) => ({ name, bytes: new Uint8Array(await (await fetch(`/api/faces/${name}`)).arrayBuffer()) })),
    );
    return { fonts: harfBuzzEngine(hb, instance.exports), faces };
  })().catch((error: unknown) => {
    loaded = null;
    throw error;
  });
  return loaded;
}

/** Stands in until a face is needed. */
export const noFonts: FontEngine = {
  openFace() {
    throw new Error('no face is loaded');
  },
  subset: (bytes) => bytes,
};
