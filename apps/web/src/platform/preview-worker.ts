import type {
  Column,
  CopyStamp,
  Field,
  FieldMap,
  FieldValues,
  FillContext,
  FillNote,
  Finish,
  MailbagError,
  SourceRecord,
  Stamp,
} from '@mailbag/core';
import { CombinedFile, RecordFiller, evaluateMap, isMailbagError, rowReader } from '@mailbag/core';
import { browserFonts } from './browser-fonts';

/** A template with its rules, and the record that fills it. */
export interface PreviewWish {
  /** Identifies the bytes and the fields of the template. */
  template: string;
  map: FieldMap;
  finish: Finish;
  /** The copy code on the paper. */
  stamp: CopyStamp | null;
  /** Pictures by field. */
  images: Readonly<Record<string, Uint8Array>>;
  columns: readonly Column[];
  record: SourceRecord;
  context: FillContext;
  /** What stands in the fields in place of what the rules make of the record. Left out: that. */
  values?: FieldValues | null;
  /** Fields that are being changed: what they show comes in a file of its own, where the copy comes apart. */
  apart?: readonly string[];
}
/** Copies of several records in one file, as they look: flattened, each with all of its pages. */
export interface SheetWish extends Omit<PreviewWish, 'finish' | 'record' | 'context' | 'values' | 'apart'> {
  /** Each with pictures of its own, by field. */
  copies: readonly { record: SourceRecord; context: FillContext; images: Readonly<Record<string, Uint8Array>> }[];
}
/** What is sent only once for a template. */
export interface PreviewTemplate {
  pdf: Uint8Array;
  fields: readonly Field[];
  /** What its layout stamps on every copy. */
  stamps: readonly Stamp[];
}

type Asked<Wish extends PreviewWish | SheetWish> = Omit<Wish, 'columns' | 'images'> & {
  id: number;
  /** Of a template that is not here yet. */
  sent?: PreviewTemplate;
  /** Left out: those of the request before. */
  columns?: readonly Column[];
  images?: PreviewWish['images'];
};
export type PreviewRequest = Asked<PreviewWish> | Asked<SheetWish>;
/**
 * `bytes`: null where they are those of the answer before that had a layer. `layer`: what lies over them; null: nothing. `notes`: those of each copy.
 */
export type PreviewAnswer =
  | { id: number; bytes: Uint8Array | null; layer: Uint8Array | null; notes: FillNote[][] }
  | { id: number; error: string | ReturnType<MailbagError['toJSON']> };

let columns: readonly Column[] = [];
let images: PreviewWish['images'] = {};
const templates = new Map<string, PreviewTemplate>();

interface Ready {
  /** What it was compiled for, beside characters. */
  key: string;
  characters: Set<string>;
  filler: Promise<RecordFiller>;
}
const ready = new Map<string, Ready>();

/** Characters of the texts for which the standard fonts may not do. One by one they stand for any words, so that few records need new faces. */
function foreign(values: FieldValues): string[] {
  const texts = Object.values(values).flatMap((value) => (typeof value === 'string' ? [value] : Array.isArray(value) ? value : []));
  return texts.filter((text) => /[^\u0020-\u007e\s]/.test(text)).flatMap((text) => [...text]);
}

/** The template made ready with faces for all characters seen so far; anew only when a character, or a field that has a rule, is new. */
async function fillerFor(
  { template, map, finish, stamp }: Pick<PreviewWish, 'template' | 'map' | 'finish' | 'stamp'>,
  needed: readonly string[],
): Promise<RecordFiller> {
  const key = JSON.stringify([finish, stamp, Object.keys(map).sort()]);
  const known = ready.get(template);
  if (known?.key === key && needed.every((char) => known.characters.has(char))) return known.filler;
  const characters = new Set([...(known?.characters ?? []), ...needed]);
  const { fonts, faces } = await browserFonts(characters);
  const { pdf, fields, stamps } = templates.get(template)!;
  const filler = RecordFiller.of(
    pdf,
    { fields, map },
    { fonts, faces, characters, finish, stamps: [...stamps, ...(stamp ? [stamp] : [])] },
  );
  ready.set(template, { key, characters, filler });
  return filler;
}

/** What a copy shows beside the fields that are being changed, and all that it was made from. */
interface Rest {
  key: string;
  images: PreviewWish['images'];
  filler: Promise<RecordFiller>;
  bytes: Uint8Array;
  notes: FillNote[];
}
let rest: Rest | null = null;
/** The one that was sent last. */
let sentRest: Rest | null = null;

interface Made {
  bytes: Uint8Array;
  /** What lies over it. */
  over: { rest: Rest; layer: Uint8Array } | null;
  notes: FillNote[][];
}

/** A copy in two where it comes apart, the first of them made only when it is another one than before; else as a whole. */
function preview(filler: RecordFiller, values: FieldValues, { template, context, images, apart = [] }: PreviewWish): Made {
  const layers = apart.length > 0 ? filler.layers(values, new Set(apart), context) : null;
  if (!layers) {
    const { bytes, notes } = filler.fillValues(values, context);
    return { bytes, over: null, notes: [notes] };
  }
  const key = JSON.stringify([template, context, layers.key]);
  const { filler: compiled } = ready.get(template)!;
  if (rest?.key !== key || rest.filler !== compiled || rest.images !== images) {
    const { bytes, notes } = layers.rest();
    rest = { key, images, filler: compiled, bytes, notes };
  }
  return { bytes: rest.bytes, over: { rest, layer: layers.layer.bytes }, notes: [[...rest.notes, ...layers.layer.notes]] };
}

/** A copy; made again with further faces when the form itself shows characters that no value has, such as those of its options. */
async function filled(wish: PreviewWish): Promise<Made> {
  const { template, map, columns, record, context, images, values: given } = wish;
  const row = rowReader(columns)(record);
  const fill = async (characters: readonly string[]): Promise<Made> =>
    preview((await fillerFor(wish, characters)).withMap(map).withImages(images), values, wish);
  const values = given ?? evaluateMap(templates.get(template)!.fields, map, row, context).values;
  const needed = foreign(values);
  const made = await fill(needed);
  const missing = made.notes.flat().flatMap(({ characters }) => characters);
  return missing.length > 0 ? fill([...needed, ...missing]) : made;
}

/** The copies of several records in one file: the art of the form is in it once, and read once. */
async function sheetOf(wish: SheetWish): Promise<Made> {
  const { template, map, columns, copies, images } = wish;
  const read = rowReader(columns);
  const { fields } = templates.get(template)!;
  const fill = async (characters: readonly string[]): Promise<Made> => {
    const filler = (await fillerFor({ ...wish, finish: 'flattened' }, characters)).withMap(map).withImages(images);
    const blocks: Uint8Array[] = [];
    const combined = new CombinedFile((bytes) => void blocks.push(bytes.slice()));
    const notes = copies.map(({ record, context, images: own }, at) =>
      filler.addTo(combined, read(record), String(at + 1), { ...context, ...(Object.keys(own).length > 0 && { images: own }) }),
    );
    combined.end();
    return { bytes: new Uint8Array(await new Blob(blocks as BlobPart[]).arrayBuffer()), over: null, notes };
  };
  const needed = copies.flatMap(({ record, context }) => foreign(evaluateMap(fields, map, read(record), context).values));
  const made = await fill(needed);
  const missing = made.notes.flat().flatMap(({ characters }) => characters);
  return missing.length > 0 ? fill([...needed, ...missing]) : made;
}

function answer(id: number, { bytes, over, notes }: Made): void {
  const isKnown = over !== null && over.rest === sentRest;
  if (over) sentRest = over.rest;
  const layer = over?.layer ?? null;
  self.postMessage({ id, bytes: isKnown ? null : bytes, layer, notes } satisfies PreviewAnswer, {
    // The rest stays here too.
    transfer: [over ? layer! : bytes].map(({ buffer }) => buffer),
  });
}

self.onmessage = (event: MessageEvent<PreviewRequest>) => {
  const { id, sent, ...asked } = event.data;
  if (sent) templates.set(asked.template, sent);
  columns = asked.columns ?? columns;
  images = asked.images ?? images;
  const made = 'copies' in asked ? sheetOf({ ...asked, columns, images }) : filled({ ...asked, columns, images });
  made.then(
    (copy) => answer(id, copy),
    (error: unknown) => {
      // What went wrong is said where the language of whoever looks is known.
      const told = isMailbagError(error) ? error.toJSON() : error instanceof Error ? error.message : String(error);
      self.postMessage({ id, error: told } satisfies PreviewAnswer);
    },
  );
};
