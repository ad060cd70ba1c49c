import type { PDFDocument, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict as Dict, PDFName, PDFRawStream, PDFRef } from '@cantoo/pdf-lib';
import type { FaceFile, FontEngine } from '../../platform/ports.js';
import type { CodedFace } from '../fill/appearance/coded-face.js';
import { num } from '../fill/appearance/number.js';
import { OwnFaces } from '../fill/appearance/own-face.js';
import { ByteWriter } from '../byte-writer.js';
import type { Beneath } from './beneath.js';
import { annotationsBeneath, overlap } from './beneath.js';
import { arrayEntry, dictEntry, dictsOf, entry, nameText, openPdf, pageEntry, whole } from '../read/document.js';
import type { EmbeddedFace } from './embed-faces.js';
import { OBJECTS_PER_FACE, embedFaces, neededFaces } from './embed-faces.js';
import type { Field, TemplateDescription } from '../field.js';
import type { FieldTree, RawField } from '../read/field-tree.js';
import { readFieldTree } from '../read/field-tree.js';
import { fingerprint } from '../fingerprint.js';
import type { Finish } from '../finish.js';
import type { HolderPlan } from './form-plan.js';
import { dropXfa, prepareForm, writeHolders } from './form-plan.js';
import { describeField, describePdf, pageRotation, visibleBox } from '../read/inspect.js';
import { addOverlay } from './overlay.js';
import type { BaseObject } from './serialise.js';
import type { FieldValue } from '../value.js';
import { XREF_HEAD, objectText, writeBase } from './serialise.js';
import type { LineStamp } from '../fill/stamp/line-stamp.js';
import { standardFace } from '../fill/appearance/coded-face.js';
import { nameOptions } from '../read/field-labels.js';
import type { StampPlace } from '../fill/stamp/stamp.js';
import { loadSymbols } from '../fill/stamp/stamp.js';
import type { CopyStamp } from '../fill/stamp/copy-stamp.js';
import { stampPlaces } from '../fill/stamp/copy-stamp.js';
import { dropConformance, isTagged } from './conformance.js';
import { dropStructure, tagValues } from './structure.js';
import type { PlanContext, WidgetPlan } from './widget-plan.js';
import { bake, planWidget } from './widget-plan.js';

export interface CompileOptions {
  fonts: FontEngine;
  /** Bundled faces in order of preference, for characters that the form's own and the standard fonts lack. */
  faces: readonly FaceFile[];
  /**
   * Words with every character that values of the batch contain; what the form's own options show is added. Characters outside WinAnsi that are
   * missing here cannot be drawn, and words that are missing may be drawn by more than one face.
   */
  characters?: Iterable<string>;
  /** Name of the file, for sentences. */
  file?: string;
  /** `flattened` where nothing is said. */
  finish?: Finish;
  /** Fields that every copy draws anew, if only as empty; what surrounds their values is then written once for all copies. */
  given?: readonly string[];
  /** Where the copy code, or a line of text, is stamped. */
  stamps?: readonly (StampPlace | CopyStamp | LineStamp)[];
}

/** One page on which something varies that is drawn into it. */
export interface PagePlan {
  /** 0-based. */
  page: number;
  /** Object number of its overlay. */
  overlay: number;
  /** The dictionary of the overlay up to its fonts, and after its fonts up to its length. */
  head: string;
  tail: string;
  /** The whole dictionary of a copy that brings no fonts and images of its own, up to its length. */
  plain: string;
  /** Operators for what lies beneath the widgets. */
  beneath: string;
  widgets: WidgetPlan[];
  stamps: (StampPlace | LineStamp)[];
  /** As a person sees it: width, height, and the matrix from there to the page's own space. */
  seen: { width: number; height: number; matrix: string };
}

/** A template made ready to be filled many times. */
export interface CompiledTemplate {
  description: TemplateDescription;
  fields: ReadonlyMap<string, Field>;
  finish: Finish;
  /** Fields whose value the form's author works out from others, in the order in which they are to be worked out. */
  calculated: Field[];
  pages: PagePlan[];
  /** Fields and widgets whose dictionaries vary; none in flattened copies. */
  holders: HolderPlan[];
  faces: EmbeddedFace[];
  /** Entries of /Font resources that are the same in every copy. */
  fonts: string;
  /** Header and all objects that are the same in every copy. */
  base: Uint8Array;
  objects: BaseObject[];
  /** Cross-reference entries of the base, the free first one included. */
  xref: Uint8Array;
  /** The trailer from its size to the second part of its identifier. */
  trailer: string;
  /** First object number that varies. */
  first: number;
  /** First number that is free after those which are planned. */
  next: number;
  root: number;
  info: number | null;
  /** Hexadecimal digest of the base, first half of the file identifier. */
  baseId: string;
  /** All pages in order: their entries for copies combined in one file, and those among them that say how a page is framed. */
  allPages: { dict: string; frame: string }[];
  /** Object numbers of the page tree and of what belongs to the document as a whole, which a combined file has of its own. */
  treeObjects: ReadonlySet<number>;
}

/** Takes from the catalog what a flattened copy must not have: the form, XFA, scripts. */
function dropForm(doc: PDFDocument): void {
  const catalog = doc.catalog;
  catalog.delete(PDFName.of('AcroForm'));
  catalog.delete(PDFName.of('AA'));
  const open = entry(catalog, 'OpenAction');
  if (open instanceof Dict && String(entry(open, 'S')) === '/JavaScript') catalog.delete(PDFName.of('OpenAction'));
  dictEntry(catalog, 'Names')?.delete(PDFName.of('JavaScript'));
}

/** Takes the widgets off a page, and what is drawn into it beneath them. Returns the references that no longer lead anywhere. */
function dropWidgets(page: PDFPage, drawn: Beneath['annotations']): PDFRef[] {
  const dropped: PDFRef[] = [];
  page.node.delete(PDFName.of('AA'));
  const annotations = arrayEntry(page.node, 'Annots');
  if (!annotations) return dropped;
  const kept = PDFArray.withContext(page.doc.context);
  for (let index = 0; index < annotations.size(); index++) {
    const raw = annotations.get(index);
    const dict = annotations.lookup(index);
    const isGone = dict instanceof Dict && (drawn.has(dict) || String(entry(dict, 'Subtype')) === '/Widget');
    if (isGone && raw instanceof PDFRef) dropped.push(raw);
    if (!isGone && dict instanceof Dict) kept.push(raw);
  }
  if (kept.size() > 0) page.node.set(PDFName.of('Annots'), kept);
  else page.node.delete(PDFName.of('Annots'));
  return dropped;
}

/** Fields without a widget on a page are gone from a flattened copy too, and so are the nodes of their tree. */
function fieldRefs(doc: PDFDocument): PDFRef[] {
  const found = new Set<PDFRef>();
  const walk = (array: PDFArray | undefined): void => {
    for (const { ref, dict } of dictsOf(array)) {
      if (ref && found.has(ref)) continue;
      if (ref) found.add(ref);
      walk(arrayEntry(dict, 'Kids'));
    }
  };
  const form = dictEntry(doc.catalog, 'AcroForm');
  walk(form && arrayEntry(form, 'Fields'));
  return [...found];
}

/** Packs streams that stand there unpacked, since they go into every copy. Metadata stays readable to search programs. */
function packStreams(doc: PDFDocument): void {
  for (const [ref, object] of doc.context.enumerateIndirectObjects()) {
    if (!(object instanceof PDFRawStream) || object.dict.has(PDFName.of('Filter')) || object.getContents().length < 256) continue;
    if (String(entry(object.dict, 'Type')) === '/Metadata') continue;
    const packed = doc.context.flateStream(object.getContents());
    const dict = object.dict.clone(doc.context);
    dict.set(PDFName.of('Filter'), PDFName.of('FlateDecode'));
    doc.context.assign(ref, PDFRawStream.of(dict, packed.getContents()));
  }
}

/**
 * Border and background of the widgets that every copy draws anew, as the page's own operators. A widget that lies over another one keeps its
 * place in the order of drawing.
 */
function bakePage(plans: readonly WidgetPlan[], given: ReadonlySet<string>): string {
  let baked = '';
  plans.forEach((plan, index) => {
    const isDrawn = plan.onValue === null && (plan.untouched === null || given.has(plan.field.name)) && !plan.close.includes('EMC');
    if (!isDrawn || plan.field.kind === 'button' || plan.field.kind === 'signature') return;
    if (plans.some((other, at) => at < index && overlap(plan.rect, other.rect))) return;
    if (given.has(plan.field.name)) plan.untouched = null;
    baked += bake(plan);
  });
  return baked;
}

/** Fields with a calculation in the order of the form (ISO 32000-2, table 224, CO); those which it does not list come last. */
function calculationOrder(tree: FieldTree, fields: readonly Field[]): Field[] {
  const listed = dictsOf(tree.acroForm && arrayEntry(tree.acroForm, 'CO')).map(({ dict }) => dict);
  const placeOf = new Map(
    tree.fields.map((raw) => [raw.name, raw.holders.map((dict) => listed.indexOf(dict)).find((at) => at >= 0) ?? Infinity]),
  );
  return fields
    .filter((field) => field.calculation)
    .sort((a, b) => (placeOf.get(a.name)! < placeOf.get(b.name)! ? -1 : placeOf.get(a.name)! > placeOf.get(b.name)! ? 1 : 0));
}

/** How a page is seen, turned by its Rotate entry (ISO 32000-2, table 31, Rotate). */
function seenPage(page: PDFPage): PagePlan['seen'] {
  const box = visibleBox(page);
  const rotation = pageRotation(page);
  const [l, b, r, t] = [box.left, box.bottom, box.left + box.width, box.bottom + box.height].map(num);
  const turned = rotation % 180 !== 0;
  return {
    width: turned ? box.height : box.width,
    height: turned ? box.width : box.height,
    matrix: { 90: `0 1 -1 0 ${r} ${b}`, 180: `-1 0 0 -1 ${r} ${t}`, 270: `0 -1 1 0 ${l} ${t}` }[rotation] ?? `1 0 0 1 ${l} ${b}`,
  };
}

/** Words that the form itself may show: display values of its options, and what its fields hold. */
function ownWords(fields: readonly Field[]): string[] {
  const held = (value: FieldValue | null): string[] => (typeof value === 'string' ? [value] : Array.isArray(value) ? value : []);
  return fields
    .filter(({ kind }) => kind === 'text' || kind === 'combo' || kind === 'list')
    .flatMap(({ options, value }) => [...options.map(({ label }) => label), ...held(value)])
    .flatMap((text) => text.split(/\s+/));
}

/**
 * Makes a template ready: everything that copies have in common is written once, and the plan of every widget is worked out.
 * @throws MailbagError as `inspectTemplate`
 */
export async function compileTemplate(pdf: Uint8Array, options: CompileOptions): Promise<CompiledTemplate> {
  const file = options.file ?? 'The template';
  return whole(file, () => compileWhole(pdf, options, file));
}

async function compileWhole(pdf: Uint8Array, options: CompileOptions, file: string): Promise<CompiledTemplate> {
  const finish = options.finish ?? 'flattened';
  const isFlat = finish === 'flattened';
  const openedPdf = await openPdf(pdf, file);
  const { doc } = openedPdf;
  const description = describePdf(openedPdf, file, nameOptions, true);
  const tree = readFieldTree(doc, file);
  const calculated = calculationOrder(tree, description.fields);
  const pages = doc.getPages();
  const seen = pages.map(seenPage);
  const stamps = (options.stamps ?? []).flatMap((stamp): (StampPlace | LineStamp)[] =>
    'corner' in stamp ? stampPlaces(stamp, seen) : [stamp],
  );
  await loadSymbols(stamps.filter((stamp) => 'symbology' in stamp));
  const names = new Map<PDFRef, string>();
  const groups = new Map<PDFRef, string>();
  const usedOn = pages.map(() => ({ appearances: new Set<PDFRef>(), groups: new Set<PDFRef>() }));
  const ownFaces = new OwnFaces();
  const plans: WidgetPlan[][] = pages.map(() => []);
  // What is stamped is written in Helvetica.
  const faces = new Set<CodedFace>(stamps.length > 0 ? [standardFace('Helvetica')] : []);
  const planned: { field: Field; plans: (WidgetPlan | null)[] }[] = [];
  const described: RawField[] = [];
  const nameOf = (map: Map<PDFRef, string>, prefix: string, ref: PDFRef): string => {
    if (!map.has(ref)) map.set(ref, `${prefix}${map.size}`);
    return map.get(ref)!;
  };
  const contextOf = (page: number): PlanContext => ({
    acroForm: tree.acroForm,
    nameAppearance: (ref) => (usedOn[page]?.appearances.add(ref), nameOf(names, 'MbA', ref)),
    nameContent: (ref) => (usedOn[page]?.groups.add(ref), nameOf(groups, 'MbC', ref)),
    ownFace: (font, ref) => ownFaces.faceOf(font, ref),
  });
  const beneath = isFlat ? pages.map((page, index) => annotationsBeneath(page, contextOf(index))) : [];
  for (const raw of tree.fields) {
    const field = describeField(raw);
    if (!field) continue;
    const mine = raw.widgets.map((widget, index) => {
      const plan = planWidget(contextOf(widget.page), raw, field, widget, index);
      if (plan) {
        if (isFlat) plans[plan.page]!.push(plan);
        for (const face of plan.coded) faces.add(face);
      }
      return plan;
    });
    planned.push({ field, plans: mine });
    described.push(raw);
  }
  const overlays = pages.map(() => doc.context.nextRef());
  const dropped = new Set<PDFRef>();
  dropXfa(doc);
  dropConformance(doc);
  const planOf = new Map(
    planned.flatMap(({ plans: mine }, at) =>
      mine.flatMap((plan, index) => (plan ? [[described[at]!.widgets[index]!.dict, plan] as const] : [])),
    ),
  );
  const tags = isFlat ? tagValues(doc, pages, overlays, planOf) : [];
  if (isFlat) {
    for (const ref of [...fieldRefs(doc), ...pages.flatMap((page, index) => dropWidgets(page, beneath[index]!.annotations))])
      dropped.add(ref);
    dropForm(doc);
    dropStructure(doc, dropped);
  }
  const held = isFlat ? [] : prepareForm(doc, tree, planned, finish);
  const given = new Set(options.given ?? []);
  // What lies beneath is drawn with the copy's own part, so borders and backgrounds over it are too.
  const baked = plans.map((here, index) => (beneath[index]?.draw ? '' : bakePage(here, given)));
  const withOverlay = pages
    .map((page, index) => ({ page, index, stamps: stamps.filter((stamp) => stamp.page === index + 1) }))
    .filter(({ index, stamps: here }) => plans[index]!.length > 0 || here.length > 0);
  // Borders and backgrounds are no part of what a tagged page says.
  const asArtifact = (content: string): string => (content && isTagged(doc) ? `/Artifact BMC\n${content}EMC\n` : content);
  for (const { page, index } of withOverlay) addOverlay(page, overlays[index]!, asArtifact(baked[index]!));
  packStreams(doc);

  const needed = neededFaces(options.fonts, options.faces, [...(options.characters ?? []), ...ownWords(description.fields)]);
  const info = doc.context.trailerInfo.Info instanceof PDFRef ? doc.context.trailerInfo.Info : null;
  const root = doc.context.trailerInfo.Root as PDFRef;
  const reserved = [...withOverlay.map(({ index }) => overlays[index]!), ...held.map(({ ref }) => ref)];
  const appearances = isFlat ? [...names.keys()] : [];
  const fontRefs = [...faces].flatMap((face) => ownFaces.refOf(face) ?? []);
  const roots = [root, ...(info ? [info] : []), ...appearances, ...groups.keys(), ...fontRefs];
  const base = writeBase(doc.context, roots, reserved, dropped, needed.length * OBJECTS_PER_FACE);
  const embedded = embedFaces(doc, needed, base.writer, base.objects);
  const bytes = base.writer.done();
  const numberOf = (ref: PDFRef): number => base.numbers.get(ref)!;
  const bundled = embedded.map(({ index, font }) => `/MbX${index} ${font} 0 R`).join('');
  const fonts = [...faces]
    .map((face) => {
      const ref = ownFaces.refOf(face);
      return `/${face.resource} ${ref ? `${numberOf(ref)} 0 R` : `<</Type/Font/Subtype/Type1/BaseFont/${face.baseFont}/Encoding/WinAnsiEncoding>>`}`;
    })
    .concat(bundled)
    .join('');
  const pagePlans = withOverlay.map(({ page, index, stamps: here }): PagePlan => {
    const box = visibleBox(page);
    const bbox = [box.left, box.bottom, box.left + box.width, box.bottom + box.height].map(num).join(' ');
    const entries = (refs: Set<PDFRef>, map: Map<PDFRef, string>): string =>
      [...refs].map((ref) => `/${map.get(ref)} ${numberOf(ref)} 0 R`).join('');
    const used = usedOn[index]!;
    const properties = used.groups.size > 0 ? `/Properties<<${entries(used.groups, groups)}>>` : '';
    const tag = tags[index] ?? null;
    const head = `<</Type/XObject/Subtype/Form${tag === null ? '' : `/StructParents ${tag}`}/BBox[${bbox}]/Resources<<${properties}/XObject<<${isFlat ? entries(used.appearances, names) : ''}`;
    return {
      page: index,
      overlay: numberOf(overlays[index]!),
      head,
      tail: `>>>>`,
      plain: `${head}>>/Font<<${fonts}>>>>`,
      beneath: beneath[index]?.draw ?? '',
      widgets: plans[index]!,
      stamps: here,
      seen: seen[index]!,
    };
  });
  const infoNumber = info ? (base.numbers.get(info) ?? null) : null;
  const baseId = fingerprint(bytes);
  const first = base.objects.length + 1;
  const holders = writeHolders(held, base.numbers, pagePlans.length + first);
  return {
    description,
    fields: new Map(description.fields.map((field) => [field.name, field])),
    finish,
    calculated,
    pages: pagePlans,
    holders,
    faces: embedded,
    fonts,
    base: bytes,
    objects: base.objects,
    xref: base.objects.reduce((writer, { from }) => writer.xref(from), new ByteWriter().ascii(XREF_HEAD)).done(),
    trailer: `/Root ${numberOf(root)} 0 R${infoNumber === null ? '' : `/Info ${infoNumber} 0 R`}/ID[<${baseId}><`,
    first,
    next: first + pagePlans.length + holders.reduce((count, holder) => count + (holder.appearance === null ? 1 : 2), 0),
    root: numberOf(root),
    info: infoNumber,
    baseId,
    allPages: pages.map((page) => pageEntries(page, base.numbers)),
    treeObjects: treeObjects(doc, base.numbers),
  };
}

/** Numbers of the nodes and leaves of the page tree. */
function treeObjects(doc: PDFDocument, numbers: ReadonlyMap<PDFRef, number>): ReadonlySet<number> {
  const found = new Set<number>();
  doc.catalog.Pages().traverse((_, ref) => {
    const number = numbers.get(ref);
    if (number !== undefined) found.add(number);
  });
  const root = doc.catalog.get(PDFName.of('Pages'));
  const number = root instanceof PDFRef ? numbers.get(root) : undefined;
  if (number !== undefined) found.add(number);
  return found;
}

/** Attributes that pages inherit from their tree (ISO 32000-2, table 31). */
const INHERITED = ['Resources', 'MediaBox', 'CropBox', 'Rotate'];
const FRAME = ['MediaBox', 'CropBox', 'Rotate', 'UserUnit'];

/** The entries of a page for a file that combines many copies: with what it inherits, without its place in the tree, its annotations and tags. */
function pageEntries(page: PDFPage, numbers: ReadonlyMap<PDFRef, number>): CompiledTemplate['allPages'][number] {
  const dict = page.node.clone(page.doc.context);
  for (const key of INHERITED) {
    const value = pageEntry(page, key);
    if (value && !dict.has(PDFName.of(key))) dict.set(PDFName.of(key), value);
  }
  for (const key of dict.keys())
    if (['Parent', 'Annots', 'StructParents', 'Tabs', 'AA', 'B', 'Metadata', 'PieceInfo'].includes(nameText(key))) dict.delete(key);
  const frame = FRAME.flatMap((key) => {
    const value = dict.get(PDFName.of(key));
    return value ? [`/${key} ${objectText(value, numbers)}`] : [];
  }).join('');
  return { dict: objectText(dict, numbers), frame };
}
