import type { PDFDocument, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict as Dict, PDFName, PDFRawStream, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { FaceFile, FontEngine, ShapingFace } from '../platform/ports.js';
import { winAnsiCode } from './appearance/standard-face.js';
import type { ExtraFace } from './appearance/text-run.js';
import { num } from './appearance/number.js';
import { ByteWriter } from './byte-writer.js';
import { arrayEntry, dictEntry, entry, openPdf } from './document.js';
import type { Field, TemplateDescription } from './field.js';
import { readFieldTree } from './field-tree.js';
import { describeField, describePdf, visibleBox } from './inspect.js';
import { writeBase, xrefEntry } from './serialise.js';
import type { WidgetPlan } from './widget-plan.js';
import { planWidget } from './widget-plan.js';

export interface CompileOptions {
  fonts: FontEngine;
  /** Bundled faces in order of preference, for characters that the standard fonts lack. */
  faces: readonly FaceFile[];
  /** Every character that values of the batch contain. Characters outside WinAnsi that are missing here cannot be drawn. */
  characters?: Iterable<string>;
  /** Name of the file, for sentences. */
  file?: string;
}

/** One page on which something varies. */
export interface PagePlan {
  /** Object number of its overlay. */
  overlay: number;
  bbox: string;
  /** XObject entries of the overlay's resources. */
  appearances: string;
  widgets: WidgetPlan[];
}

/** A bundled face embedded in the base block. */
export interface EmbeddedFace extends ExtraFace {
  /** Object number of its descriptor. */
  descriptor: number;
}

/** A template made ready to be filled many times. Flattened: copies have no fields. */
export interface CompiledTemplate {
  description: TemplateDescription;
  fields: ReadonlyMap<string, Field>;
  pages: PagePlan[];
  faces: EmbeddedFace[];
  base: Uint8Array;
  /** Cross-reference entries of what stands in `base`: before the overlays' numbers and after them. */
  xref: [string, string];
  /** First object number that is free for what varies after the overlays. */
  nextObject: number;
  root: number;
  info: number | null;
  /** Hexadecimal digest of the base, first half of the file identifier. */
  baseId: string;
}

/** A digest of 128 bits for file identifiers; not for secrets. FNV-1a in four lanes. */
export function fingerprint(bytes: Uint8Array | string): string {
  const lanes = [0x811c9dc5, 0x1234567, 0x9e3779b1, 0x85ebca6b];
  const at = typeof bytes === 'string' ? (index: number) => bytes.charCodeAt(index) : (index: number) => bytes[index]!;
  for (let index = 0; index < bytes.length; index++) {
    const lane = index & 3;
    lanes[lane] = Math.imul(lanes[lane]! ^ at(index), 0x01000193);
  }
  return lanes.map((lane, index) => (Math.imul(lane ^ bytes.length, 0x01000193 + index) >>> 0).toString(16).padStart(8, '0')).join('');
}

/** Takes from the catalog what a flattened copy must not have: the form, XFA, scripts. */
function dropForm(doc: PDFDocument): void {
  const catalog = doc.catalog;
  catalog.delete(PDFName.of('AcroForm'));
  catalog.delete(PDFName.of('AA'));
  catalog.delete(PDFName.of('NeedsRendering'));
  catalog.delete(PDFName.of('Perms'));
  const open = entry(catalog, 'OpenAction');
  if (open instanceof Dict && String(entry(open, 'S')) === '/JavaScript') catalog.delete(PDFName.of('OpenAction'));
  dictEntry(catalog, 'Names')?.delete(PDFName.of('JavaScript'));
}

/** Takes the widgets off a page. Returns the references that no longer lead anywhere. */
function dropWidgets(page: PDFPage): PDFRef[] {
  const dropped: PDFRef[] = [];
  page.node.delete(PDFName.of('AA'));
  const annotations = arrayEntry(page.node, 'Annots');
  if (!annotations) return dropped;
  const kept = PDFArray.withContext(page.doc.context);
  for (let index = 0; index < annotations.size(); index++) {
    const raw = annotations.get(index);
    const dict = annotations.lookup(index);
    const isWidget = dict instanceof Dict && String(entry(dict, 'Subtype')) === '/Widget';
    if (isWidget && raw instanceof PDFRef) dropped.push(raw);
    if (!isWidget && dict) kept.push(raw);
  }
  if (kept.size() > 0) page.node.set(PDFName.of('Annots'), kept);
  else page.node.delete(PDFName.of('Annots'));
  return dropped;
}

/** Lets a page draw its overlay after its own content, in the page's own space. */
function addOverlay(page: PDFPage, overlay: PDFRef): void {
  const context = page.doc.context;
  const resources = page.node.Resources();
  const own = (resources ?? Dict.withContext(context)).clone(context);
  const objects = (dictEntry(own, 'XObject') ?? Dict.withContext(context)).clone(context);
  objects.set(PDFName.of('MbO'), overlay);
  own.set(PDFName.of('XObject'), objects);
  page.node.set(PDFName.of('Resources'), own);
  const stream = (text: string): PDFRef =>
    context.register(
      PDFRawStream.of(
        Dict.withContext(context),
        Uint8Array.from(text, (char) => char.charCodeAt(0)),
      ),
    );
  const raw = page.node.get(PDFName.of('Contents'));
  const found = raw && page.node.lookup(PDFName.of('Contents'));
  const contents = PDFArray.withContext(context);
  const originals = found instanceof PDFArray ? found.asArray() : found instanceof PDFStream && raw ? [raw] : [];
  if (originals.length > 0) {
    contents.push(stream('q\n'));
    for (const original of originals) contents.push(original);
    contents.push(stream('\nQ\nq /MbO Do Q\n'));
  } else contents.push(stream('q /MbO Do Q\n'));
  page.node.set(PDFName.of('Contents'), contents);
}

const opened = new WeakMap<FaceFile, ShapingFace>();

function openFace(fonts: FontEngine, file: FaceFile): ShapingFace {
  let face = opened.get(file);
  if (!face) opened.set(file, (face = fonts.openFace(file.bytes)));
  return face;
}

/** The faces needed for the characters, each cut down to them. */
function neededFaces(options: CompileOptions): { extra: ExtraFace; file: Uint8Array; points: number[] }[] {
  const points = [...new Set(Array.from(options.characters ?? [], (char) => char.codePointAt(0)!))].sort((a, b) => a - b);
  const foreign = points.filter((point) => point >= 0x20 && winAnsiCode(point) === undefined);
  if (foreign.length === 0) return [];
  return options.faces.flatMap((file, index) => {
    const face = openFace(options.fonts, file);
    if (!foreign.some((point) => face.covers(point))) return [];
    const covered = new Set([0x20, ...points].filter((point) => face.covers(point)));
    const limited: ShapingFace = {
      ...face,
      unitsPerEm: face.unitsPerEm,
      ascender: face.ascender,
      descender: face.descender,
      covers: (point) => covered.has(point),
    };
    return [{ extra: { index, name: file.name, face: limited }, file: options.fonts.subset(file.bytes, covered), points: [...covered] }];
  });
}

/** Six letters that mark a subset (ISO 32000-2, 9.9.2), from the characters in it. */
function subsetTag(points: readonly number[]): string {
  const digest = fingerprint(points.join(','));
  return Array.from({ length: 6 }, (_, index) =>
    String.fromCharCode(65 + (Number.parseInt(digest.slice(index * 4, index * 4 + 4), 16) % 26)),
  ).join('');
}

function embedFaces(
  doc: PDFDocument,
  options: CompileOptions,
  out: ByteWriter,
  firstNumber: number,
): { faces: EmbeddedFace[]; xref: string; next: number } {
  let next = firstNumber;
  let xref = '';
  const faces = neededFaces(options).map(({ extra, file, points }) => {
    const packed = doc.context.flateStream(file).getContents();
    const name = `${subsetTag(points)}+${extra.name}`;
    const up = (value: number): string => num((value * 1000) / extra.face.unitsPerEm);
    const program = next++;
    xref += xrefEntry(out.length);
    out
      .text(`${program} 0 obj\n<</Filter/FlateDecode/Length1 ${file.length}/Length ${packed.length}>>\nstream\n`)
      .bytes(packed)
      .text('\nendstream\nendobj\n');
    const descriptor = next++;
    xref += xrefEntry(out.length);
    out.text(
      `${descriptor} 0 obj\n<</Type/FontDescriptor/FontName/${name}/Flags 4/FontBBox[-1000 ${up(extra.face.descender)} 2000 ${up(extra.face.ascender)}]` +
        `/ItalicAngle 0/Ascent ${up(extra.face.ascender)}/Descent ${up(extra.face.descender)}/CapHeight 714/StemV 80/FontFile2 ${program} 0 R>>\nendobj\n`,
    );
    return { ...extra, name, descriptor };
  });
  return { faces, xref, next };
}

/**
 * Makes a template ready: everything that copies have in common is written once, and the plan of every widget is worked out.
 * @throws MailbagError as `inspectTemplate`
 */
export async function compileTemplate(pdf: Uint8Array, options: CompileOptions): Promise<CompiledTemplate> {
  const file = options.file ?? 'The template';
  const openedPdf = await openPdf(pdf, file);
  const { doc } = openedPdf;
  const description = describePdf(openedPdf, file);
  const tree = readFieldTree(doc);
  const pages = doc.getPages();
  const overlays = pages.map(() => doc.context.nextRef());
  const names = new Map<PDFRef, string>();
  const usedOn = pages.map(() => new Set<PDFRef>());
  const plans: WidgetPlan[][] = pages.map(() => []);
  for (const raw of tree.fields) {
    const field = describeField(raw);
    if (!field) continue;
    raw.widgets.forEach((widget, index) => {
      const plan = planWidget(tree.acroForm, raw, field, widget, index, (ref) => {
        if (!names.has(ref)) names.set(ref, `MbA${names.size}`);
        usedOn[widget.page]!.add(ref);
        return names.get(ref)!;
      });
      if (plan) plans[plan.page]!.push(plan);
    });
  }
  const dropped = new Set(pages.flatMap(dropWidgets));
  dropForm(doc);
  const withOverlay = pages.map((page, index) => ({ page, index })).filter(({ index }) => plans[index]!.length > 0);
  for (const { page, index } of withOverlay) addOverlay(page, overlays[index]!);
  const info = doc.context.trailerInfo.Info instanceof PDFRef ? doc.context.trailerInfo.Info : null;
  const root = doc.context.trailerInfo.Root as PDFRef;
  const reserved = withOverlay.map(({ index }) => overlays[index]!);
  const base = writeBase(doc.context, root, info, reserved, dropped, [...names.keys()]);

  const out = new ByteWriter().bytes(base.bytes);
  const { faces, xref, next } = embedFaces(doc, options, out, base.count + reserved.length);
  const bytes = out.done();
  return {
    description,
    fields: new Map(description.fields.map((field) => [field.name, field])),
    pages: withOverlay.map(({ page, index }, at) => {
      const box = visibleBox(page);
      return {
        overlay: base.reserved[at]!,
        bbox: [box.left, box.bottom, box.left + box.width, box.bottom + box.height].map(num).join(' '),
        appearances: [...usedOn[index]!].map((ref) => `/${names.get(ref)} ${base.numbers.get(ref)} 0 R`).join(''),
        widgets: plans[index]!,
      };
    }),
    faces,
    base: bytes,
    xref: [base.xref, xref],
    nextObject: next,
    root: base.root,
    info: base.info,
    baseId: fingerprint(bytes),
  };
}
