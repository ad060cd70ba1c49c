import type { FaceFile, FontEngine } from '@mailbag/core';
import { facesFor, harfBuzzEngine, isBeyondStandard } from '@mailbag/core';
import subsetUrl from 'harfbuzzjs/dist/harfbuzz-subset.wasm?url';

interface Loaded {
  fonts: FontEngine;
  /** In order of preference. */
  names: readonly string[];
}
let loaded: Promise<Loaded> | null = null;
const faces = new Map<string, Promise<FaceFile>>();

/** Keeps what was promised, but not a failure: it is tried again. */
const remembered = <Value>(promise: Promise<Value>, forget: () => void): Promise<Value> => {
  promise.catch(forget);
  return promise;
};

const engine = (): Promise<Loaded> =>
  (loaded ??= remembered(
    (async () => {
      const [{ instance }, hb, names] = await Promise.all([
        WebAssembly.instantiateStreaming(fetch(subsetUrl)),
        import('harfbuzzjs'),
        fetch('/api/faces').then((answer) => answer.json() as Promise<string[]>),
      ]);
      return { fonts: harfBuzzEngine(hb, instance.exports), names };
    })(),
    () => (loaded = null),
  ));

function faceNamed(name: string): Promise<FaceFile> {
  let face = faces.get(name);
  if (!face) {
    const fetched = fetch(`/api/faces/${name}`).then(async (answer) => ({ name, bytes: new Uint8Array(await answer.arrayBuffer()) }));
    faces.set(name, (face = remembered(fetched, () => faces.delete(name))));
  }
  return face;
}

/**
 * The browser's side of core's fonts, with the faces that draw the characters. Engine and faces are asked for once, and only when a character needs them: together
 * they are larger than all of the screens.
 */
export async function browserFonts(characters: ReadonlySet<string>): Promise<{ fonts: FontEngine; faces: FaceFile[] }> {
  if (![...characters].some(isBeyondStandard)) return { fonts: noFonts, faces: [] };
  const { fonts, names } = await engine();
  return { fonts, faces: await facesFor(fonts, characters, async (place) => (names[place] ? faceNamed(names[place]) : null)) };
}

/** Stands in until a face is needed. */
const noFonts: FontEngine = {
  openFace() {
    throw new Error('no face is loaded');
  },
  subset: (bytes) => bytes,
};
