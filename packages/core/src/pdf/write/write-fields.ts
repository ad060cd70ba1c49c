import type { PDFDict, PDFDocument, PDFObject, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict as Dict, PDFHexString, PDFName, PDFStream, PDFString } from '@cantoo/pdf-lib';
import { MailbagError } from '../../errors/catalogue.js';
import { arrayEntry, dictEntry, nameEntry, openPdf, whole } from '../read/document.js';
import { pageRotation, visibleBox } from '../read/inspect.js';
import { readFieldTree } from '../read/field-tree.js';
import type { DrawnField } from './drawn-field.js';
import { drawnFaces } from './drawn-field.js';
import type { WrittenWidget } from './tag-widgets.js';
import { tagWidgets } from './tag-widgets.js';

/** Bits of Ff, from ISO 32000-2, tables 227, 229, 231 and 233. */
const FLAG = {
  required: 1 << 1,
  multiline: 1 << 12,
  noToggleToOff: 1 << 14,
  radio: 1 << 15,
  pushButton: 1 << 16,
  combo: 1 << 17,
  comb: 1 << 24,
};
/** Bit of F: print (ISO 32000-2, table 167). */
const PRINT = 4;
/** The smallest that can be written into or hit, points. */
const LEAST = 3;

const name = (text: string): PDFName => PDFName.of(text);
const isLatin = (text: string): boolean => [...text].every((char) => char.charCodeAt(0) < 0x7f && char.charCodeAt(0) >= 0x20);
const textString = (text: string): PDFObject =>
  isLatin(text) ? PDFString.of(text.replace(/[\\()]/g, '\\$&')) : PDFHexString.fromText(text);
const short = (value: number): string => String(Math.round(value * 1000) / 1000);

/** Refuses what cannot become a field. @throws MailbagError layout-* */
function check(doc: PDFDocument, fields: readonly DrawnField[], taken: ReadonlySet<string>): void {
  const seen = new Map<string, DrawnField>();
  for (const field of fields) {
    const page = doc.getPages()[field.page - 1];
    if (!page) throw new MailbagError('layout-no-page', { field: field.name, page: field.page, pages: doc.getPageCount() });
    const [left, bottom, right, top] = field.rect;
    if (right - left < LEAST || top - bottom < LEAST) throw new MailbagError('layout-no-size', { field: field.name });
    const box = visibleBox(page);
    if (right <= box.left || left >= box.left + box.width || top <= box.bottom || bottom >= box.bottom + box.height)
      throw new MailbagError('layout-off-page', { field: field.name, page: field.page });
    if (field.name.split('.').some((part) => part.trim() === '')) throw new MailbagError('layout-name', { field: field.name });
    const other = seen.get(field.name);
    const isOneRadio = other?.kind === 'radio' && field.kind === 'radio';
    if (taken.has(field.name) || (other && !isOneRadio)) throw new MailbagError('layout-name-taken', { field: field.name });
    for (const known of [...taken, ...seen.keys()])
      if (known.startsWith(`${field.name}.`) || field.name.startsWith(`${known}.`))
        throw new MailbagError('layout-name-taken', { field: field.name });
    seen.set(field.name, field);
    if (field.kind === 'comb' && !(field.cells && field.cells > 0)) throw new MailbagError('layout-no-cells', { field: field.name });
  }
}

class Writer {
  private readonly form: PDFDict;
  private readonly widgets: WrittenWidget[] = [];
  private readonly radios = new Map<string, { ref: PDFRef; kids: PDFArray }>();
  private readonly folders = new Map<string, { ref: PDFRef; kids: PDFArray }>();

  constructor(private readonly doc: PDFDocument) {
    const { context, catalog } = doc;
    const known = dictEntry(catalog, 'AcroForm');
    this.form = known ?? context.obj({ Fields: [] });
    if (!known) catalog.set(name('AcroForm'), context.register(this.form));
    if (!arrayEntry(this.form, 'Fields')) this.form.set(name('Fields'), PDFArray.withContext(context));
    if (!this.form.has(name('DA'))) this.form.set(name('DA'), PDFString.of('/Helv 0 Tf 0 g'));
    // The copy of an XFA form would know nothing of these fields.
    this.form.delete(name('XFA'));
    // Appearances are written here; a reader that made its own would draw over them.
    this.form.delete(name('NeedAppearances'));
  }

  /** The resources of the form with the faces that fields ask for. */
  private faces(used: ReadonlySet<string>): void {
    const { context } = this.doc;
    let resources = dictEntry(this.form, 'DR');
    if (!resources) this.form.set(name('DR'), (resources = context.obj({})));
    let fonts = dictEntry(resources, 'Font');
    if (!fonts) resources.set(name('Font'), (fonts = context.obj({})));
    for (const [face, key] of Object.entries(drawnFaces)) {
      if (!used.has(face) || fonts.has(name(key))) continue;
      fonts.set(name(key), context.register(context.obj({ Type: 'Font', Subtype: 'Type1', BaseFont: face, Encoding: 'WinAnsiEncoding' })));
    }
  }

  /** An appearance of a box as large as the field (ISO 32000-2, 12.5.5), turned with its page so that it stands upright. */
  private appearance(field: DrawnField, rotation: number, content: string): PDFRef {
    const [left, bottom, right, top] = field.rect;
    const isTurned = rotation % 180 !== 0;
    const [width, height] = isTurned ? [top - bottom, right - left] : [right - left, top - bottom];
    const matrix = { 0: [1, 0, 0, 1, 0, 0], 90: [0, 1, -1, 0, height, 0], 180: [-1, 0, 0, -1, width, height], 270: [0, -1, 1, 0, 0, width] }[rotation] ?? [1, 0, 0, 1, 0, 0]; // prettier-ignore
    const frame = field.border ? `q 0.5 w 0.25 0.25 ${short(width - 0.5)} ${short(height - 0.5)} re S Q\n` : '';
    return this.doc.context.register(
      this.doc.context.stream(frame + content, {
        Type: 'XObject',
        Subtype: 'Form',
        BBox: [0, 0, Number(short(width)), Number(short(height))],
        Resources: {},
        ...(rotation !== 0 && { Matrix: matrix }),
      }),
    );
  }
  /** A cross over the middle of a tick box, or a dot in that of a radio button. */
  private mark({ rect: [left, bottom, right, top], kind, colour }: DrawnField): string {
    const [width, height] = [right - left, top - bottom];
    const size = Math.min(width, height) * 0.62;
    const [x, y] = [width / 2, height / 2].map((middle) => middle - size / 2) as [number, number];
    const ink = colour.map(short).join(' ');
    if (kind === 'radio') {
      // A circle of four curves (common practice; 0.5523 is the length of their handles).
      const [r, cx, cy] = [size / 2.4, width / 2, height / 2];
      const k = r * 0.5523;
      const at = (...points: number[]): string => points.map(short).join(' ');
      return `q ${ink} rg ${at(cx + r, cy)} m ${at(cx + r, cy + k, cx + k, cy + r, cx, cy + r)} c ${at(cx - k, cy + r, cx - r, cy + k, cx - r, cy)} c ${at(cx - r, cy - k, cx - k, cy - r, cx, cy - r)} c ${at(cx + k, cy - r, cx + r, cy - k, cx + r, cy)} c f Q`;
    }
    return `q ${ink} RG ${short(Math.max(0.8, size / 8))} w ${short(x)} ${short(y)} m ${short(x + size)} ${short(y + size)} l ${short(x)} ${short(y + size)} m ${short(x + size)} ${short(y)} l S Q`;
  }

  /** The place in the tree of fields where a name goes (ISO 32000-2, 12.7.4.2): `a.b` is b below a. */
  private parentOf(field: string): { ref: PDFRef | null; kids: PDFArray } {
    const parts = field.split('.').slice(0, -1);
    let kids = arrayEntry(this.form, 'Fields')!;
    let ref: PDFRef | null = null;
    for (const [index, part] of parts.entries()) {
      const path = parts.slice(0, index + 1).join('.');
      let folder = this.folders.get(path) ?? this.knownFolder(kids, part);
      if (!folder) {
        const own = PDFArray.withContext(this.doc.context);
        const dict: PDFDict = this.doc.context.obj({ Kids: own, ...(ref && { Parent: ref }) });
        dict.set(name('T'), textString(part));
        folder = { ref: this.doc.context.register(dict), kids: own };
        kids.push(folder.ref);
      }
      this.folders.set(path, folder);
      ({ ref, kids } = folder);
    }
    return { ref, kids };
  }
  /** A field of the file that has no kind of its own but holds others, by its part of the name. */
  private knownFolder(kids: PDFArray, part: string): { ref: PDFRef; kids: PDFArray } | undefined {
    for (let index = 0; index < kids.size(); index++) {
      const dict = kids.lookup(index);
      const ref = kids.get(index);
      if (!(dict instanceof Dict)) continue;
      const title = dict.lookup(name('T'));
      const own = arrayEntry(dict, 'Kids');
      if (own && (title instanceof PDFString || title instanceof PDFHexString) && title.decodeText() === part)
        return { ref: ref as PDFRef, kids: own };
    }
    return undefined;
  }

  /** What is the field's own, beside that of its widget. */
  private fieldEntries(field: DrawnField): Record<string, PDFObject | string | number> {
    const { kind, limit, cells, required, options, tooltip, label, align } = field;
    const bits =
      (required ? FLAG.required : 0) |
      (kind === 'multiline' ? FLAG.multiline : 0) |
      (kind === 'comb' ? FLAG.comb : 0) |
      (kind === 'menu' ? FLAG.combo : 0) |
      (kind === 'radio' ? FLAG.radio | FLAG.noToggleToOff : 0) |
      (kind === 'image' ? FLAG.pushButton : 0);
    const type =
      kind === 'checkbox' || kind === 'radio' || kind === 'image'
        ? 'Btn'
        : kind === 'menu' || kind === 'list'
          ? 'Ch'
          : kind === 'signature'
            ? 'Sig'
            : 'Tx';
    const maximum = kind === 'comb' ? cells : limit;
    const text = tooltip ?? label;
    return {
      FT: type,
      T: textString(field.name.split('.').at(-1)!),
      ...(bits !== 0 && { Ff: bits }),
      ...(text !== null && { TU: textString(text) }),
      ...(type === 'Tx' && maximum !== null && { MaxLen: Math.max(1, Math.round(maximum)) }),
      ...(type === 'Ch' && {
        Opt: this.doc.context.obj(
          options.map(({ value, label: say }) =>
            value === say ? textString(say) : this.doc.context.obj([textString(value), textString(say)]),
          ),
        ),
      }),
      ...((type === 'Tx' || type === 'Ch') && {
        DA: PDFString.of(`/${drawnFaces[field.font]} ${short(field.size)} Tf ${field.colour.map(short).join(' ')} rg`),
        Q: { left: 0, centre: 1, right: 2 }[align],
      }),
    };
  }

  private widget(field: DrawnField, page: PDFPage): Record<string, PDFObject | string | number> {
    const { context } = this.doc;
    const rotation = pageRotation(page);
    const look = { ...(rotation !== 0 && { R: rotation }), ...(field.border && { BC: [0] }) };
    const isTick = field.kind === 'checkbox' || field.kind === 'radio';
    const on = name(field.value ?? 'Yes');
    const states = context.obj({});
    if (isTick) {
      states.set(on, this.appearance(field, rotation, this.mark(field)));
      states.set(name('Off'), this.appearance(field, rotation, ''));
    }
    return {
      Type: 'Annot',
      Subtype: 'Widget',
      Rect: context.obj(field.rect.map((side) => Number(short(side)))),
      F: PRINT,
      P: page.ref,
      ...(Object.keys(look).length > 0 && { MK: context.obj(look) }),
      AP: context.obj({
        N: isTick ? states : this.appearance(field, rotation, field.kind === 'signature' || field.kind === 'image' ? '' : '/Tx BMC\nEMC'),
      }),
      ...(isTick && { AS: 'Off' }),
    };
  }

  add(field: DrawnField): void {
    const { context } = this.doc;
    const page = this.doc.getPages()[field.page - 1]!;
    let dict: PDFDict;
    if (field.kind === 'radio') {
      let group = this.radios.get(field.name);
      if (!group) {
        const { ref, kids } = this.parentOf(field.name);
        const own = PDFArray.withContext(context);
        const parent = context.register(context.obj({ ...this.fieldEntries(field), Kids: own, V: 'Off', ...(ref && { Parent: ref }) }));
        kids.push(parent);
        this.radios.set(field.name, (group = { ref: parent, kids: own }));
      }
      dict = context.obj({ ...this.widget(field, page), Parent: group.ref });
      this.place(dict, page, group.kids);
    } else {
      const { ref, kids } = this.parentOf(field.name);
      dict = context.obj({ ...this.fieldEntries(field), ...this.widget(field, page), ...(ref && { Parent: ref }) });
      this.place(dict, page, kids);
    }
  }
  private place(dict: PDFDict, page: PDFPage, kids: PDFArray): void {
    const ref = this.doc.context.register(dict);
    kids.push(ref);
    // Some producers let pages share one list; what is added here belongs to this page alone.
    const annotations = arrayEntry(page.node, 'Annots')?.clone(this.doc.context) ?? PDFArray.withContext(this.doc.context);
    annotations.push(ref);
    page.node.set(name('Annots'), annotations);
    this.widgets.push({ ref, dict, page });
  }

  finish(fields: readonly DrawnField[]): void {
    this.faces(new Set(['Helvetica', ...fields.map(({ font }) => font)]));
    // Tab goes by the structure where there is one, and by the order of the annotations otherwise (ISO 32000-2, table 31).
    const isTagged = tagWidgets(this.doc, this.widgets);
    for (const page of new Set(this.widgets.map((widget) => widget.page))) {
      if (isTagged) page.node.set(name('Tabs'), name('S'));
      else page.node.delete(name('Tabs'));
    }
  }
}

/** Takes out what belonged to the file as it was stored: old cross-reference streams, streams of objects, and the encryption that has been undone. */
function dropStorage({ context }: PDFDocument): void {
  for (const [ref, object] of context.enumerateIndirectObjects()) {
    const dict = object instanceof PDFStream ? object.dict : object instanceof Dict ? object : null;
    const type = dict && nameEntry(dict, 'Type');
    const isCipher = object instanceof Dict && nameEntry(object, 'Filter') === 'Standard' && object.has(name('O')) && object.has(name('U'));
    if ((object instanceof PDFStream && (type === 'XRef' || type === 'ObjStm')) || isCipher) context.delete(ref);
  }
}

/**
 * Writes drawn fields into a PDF, which may have fields already: real AcroForm fields with appearances, tooltips and tab order; the structure of a tagged file is kept
 * and goes on to hold them. A file that was encrypted but opened without a password is written without encryption.
 * @throws MailbagError pdf-not-a-pdf, pdf-damaged, pdf-password, layout-no-page, layout-no-size, layout-off-page, layout-name, layout-name-taken, layout-no-cells
 */
export async function writeFields(bytes: Uint8Array, fields: readonly DrawnField[], file = 'The file', password = ''): Promise<Uint8Array> {
  return whole(file, async () => {
    const { doc } = await openPdf(bytes, file, password);
    check(doc, fields, new Set(readFieldTree(doc, file).fields.map((field) => field.name)));
    const writer = new Writer(doc);
    for (const field of fields) writer.add(field);
    writer.finish(fields);
    dropStorage(doc);
    return doc.save({ useObjectStreams: false, updateFieldAppearances: false, addDefaultPage: false });
  });
}
