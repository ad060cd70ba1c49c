import type { CompiledTemplate, FieldValues, FillNote } from '@mailbag/core';
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

/** Characters for which the standard fonts may not do. */
function foreign(values: FieldValues): string[] {
  const texts = Object.values(values).flatMap((value) => (typeof value === 'string' ? [value] : Array.isArray(value) ? value : []));
  return texts.filter((text) => /[^\u0020-\u007e\s]/.test(text)).flatMap((text) => [...text]);
}

/** The template compiled with faces for all characters seen so far; compiled anew only when one is new. */
async function templateFor(key: string, values: FieldValues): Promise<CompiledTemplate> {
  const known = compiled.get(key);
  const needed = foreign(values);
  if (known && needed.every((char) => known.characters.has(char))) return known.template;
  const characters = new Set([...(known?.characters ?? []), ...needed]);
  const { fonts, faces } = characters.size > 0 ? await browserFonts() : { fonts: noFonts, faces: [] };
  const template = compileTemplate(pdfs.get(key)!, { fonts, faces, characters });
  compiled.set(key, { characters, template });
  return template;
}

self.onmessage = (event: MessageEvent<PreviewRequest>) => {
  const { id, template, pdf, values } = event.data;
  if (pdf) pdfs.set(template, pdf);
  templateFor(template, values).then(
    (ready) => {
      const { bytes, notes } = fillCopy(ready, values);
      self.postMessage({ id, bytes, notes } satisfies PreviewAnswer, { transfer: [bytes.buffer] });
    },
    (error: unknown) => self.postMessage({ id, error: error instanceof Error ? error.message : String(error) } satisfies PreviewAnswer),
  );
};
