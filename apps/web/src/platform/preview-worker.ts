import type { CompiledTemplate, FieldValues, FilledCopy, FillNote } from '@mailbag/core';
import { compileTemplate, fillCopy } from '@mailbag/core';
import { browserFonts, noFonts } from './browser-fonts';

export interface PreviewRequest {
  id: number;
  /** Identifies the bytes, which are sent only once. */
  template: string;
  pdf?: Uint8Array;
  values: FieldValues;
}
export type PreviewAnswer = { id: number; bytes: Uint8Array; notes: FillNote[] } | { id: number; error: string };

const pdfs = new Map<string, Uint8Array>();
const compiled = new Map<string, { characters: Set<string>; template: Promise<CompiledTemplate> }>();

/** Characters of the texts for which the standard fonts may not do. One by one they stand for any words, so that few records need new faces. */
function foreign(values: FieldValues): string[] {
  const texts = Object.values(values).flatMap((value) => (typeof value === 'string' ? [value] : Array.isArray(value) ? value : []));
  return texts.filter((text) => /[^\u0020-\u007e\s]/.test(text)).flatMap((text) => [...text]);
}

/** The template compiled with faces for all characters seen so far; compiled anew only when one is new. */
async function templateFor(key: string, needed: readonly string[]): Promise<CompiledTemplate> {
  const known = compiled.get(key);
  if (known && needed.every((char) => known.characters.has(char))) return known.template;
  const characters = new Set([...(known?.characters ?? []), ...needed]);
  const { fonts, faces } = characters.size > 0 ? await browserFonts() : { fonts: noFonts, faces: [] };
  const template = compileTemplate(pdfs.get(key)!, { fonts, faces, characters });
  compiled.set(key, { characters, template });
  return template;
}

/** A copy; made again with further faces when the form itself shows characters that no value has, such as those of its options. */
async function filled(key: string, values: FieldValues): Promise<FilledCopy> {
  const needed = foreign(values);
  const copy = fillCopy(await templateFor(key, needed), values);
  const missing = copy.notes.flatMap(({ characters }) => characters);
  return missing.length > 0 ? fillCopy(await templateFor(key, [...needed, ...missing]), values) : copy;
}

self.onmessage = (event: MessageEvent<PreviewRequest>) => {
  const { id, template, pdf, values } = event.data;
  if (pdf) pdfs.set(template, pdf);
  filled(template, values).then(
    ({ bytes, notes }) => self.postMessage({ id, bytes, notes } satisfies PreviewAnswer, { transfer: [bytes.buffer] }),
    (error: unknown) => self.postMessage({ id, error: error instanceof Error ? error.message : String(error) } satisfies PreviewAnswer),
  );
};
