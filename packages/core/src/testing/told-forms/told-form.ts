import { PDFDocument, PDFName, PDFString, StandardFonts, rgb } from '@cantoo/pdf-lib';
import type { PDFFont, PDFPage } from '@cantoo/pdf-lib';
import type { BlankKind } from '../../blanks/blank.js';

type Rect = [number, number, number, number];

/** A blank as a person would tell it (common practice, no source). */
export interface ToldBlank {
  name: string;
  rect: Rect;
  kind: BlankKind;
  label: string | null;
  cells?: number;
  /** What its row of ticks is about. */
  group?: string;
  /** The answer that it belongs to, with the piece that it is; left out: it is one by itself. */
  answer?: string;
  piece?: string;
  limit?: number;
  multiline?: boolean;
  /** Whether on paper it is the next line of the blank before it. */
  isSameText?: boolean;
  page: number;
}

/** How a new edition of a form differs from the one that was drawn. */
export interface EditionChanges {
  rename?: (name: string, index: number) => string;
  /** By how much everything is moved, points. */
  shift?: [number, number];
  /** A page of other print that is put before the others. */
  firstPage?: readonly string[];
  /** Print that reads otherwise now. */
  reword?: Readonly<Record<string, string>>;
  /** Fields that are left out, or changed, by their place in the list. */
  change?: (blank: ToldBlank, index: number) => ToldBlank | null;
}

/** A form that is drawn by code, with what a person would say of each of its blanks; once with fields and once without. */
export class ToldForm {
  readonly blanks: ToldBlank[] = [];
  private reword: Readonly<Record<string, string>> = {};
  private pages: { draw: (page: PDFPage, fonts: { plain: PDFFont; bold: PDFFont }) => void }[][] = [[]];

  constructor(
    readonly name: string,
    private readonly size: [number, number] = [612, 792],
    /** How fields are called by whoever made the form. */
    private readonly fieldName: (index: number, page: number) => string = (index, page) =>
      `topmostSubform[0].Page${page}[0].f${page}_${String(index).padStart(2, '0')}[0]`,
  ) {}

  private draw(draw: (page: PDFPage, fonts: { plain: PDFFont; bold: PDFFont }) => void): this {
    this.pages.at(-1)!.push({ draw });
    return this;
  }
  newPage(): this {
    this.pages.push([]);
    return this;
  }
  text(x: number, y: number, words: string, size = 8, isBold = false): this {
    return this.draw((page, { plain, bold }) => page.drawText(this.reword[words] ?? words, { x, y, size, font: isBold ? bold : plain }));
  }
  /** Leader dots from one place to another. */
  dots(from: number, y: number, to: number): this {
    return this.text(from, y, '. '.repeat(Math.max(0, Math.floor((to - from) / 4.45))).trim(), 8);
  }
  line(x1: number, y1: number, x2: number, y2: number, thickness = 0.6): this {
    return this.draw((page) => page.drawLine({ start: { x: x1, y: y1 }, end: { x: x2, y: y2 }, thickness }));
  }
  box([left, bottom, right, top]: Rect, fill?: number): this {
    const color = fill === undefined ? {} : { color: rgb(fill, fill, fill) };
    return this.draw((page) =>
      page.drawRectangle({
        x: left,
        y: bottom,
        width: right - left,
        height: top - bottom,
        borderWidth: 0.6,
        borderColor: rgb(0, 0, 0),
        ...color,
      }),
    );
  }
  bar([left, bottom, right, top]: Rect, fill: number): this {
    return this.draw((page) =>
      page.drawRectangle({ x: left, y: bottom, width: right - left, height: top - bottom, color: rgb(fill, fill, fill) }),
    );
  }
  circle(x: number, y: number, size: number): this {
    return this.draw((page) => page.drawCircle({ x, y, size, borderWidth: 0.6, borderColor: rgb(0, 0, 0) }));
  }

  /** A place to be filled; draws nothing. */
  blank(kind: BlankKind, rect: Rect, label: string | null, more: Partial<ToldBlank> = {}): this {
    const page = this.pages.length;
    const index = this.blanks.filter((one) => one.page === page).length + 1;
    this.blanks.push({ name: this.fieldName(index, page), kind, rect, label, page, ...more });
    return this;
  }
  /** A line to write on. */
  ruled(x1: number, y: number, x2: number, label: string | null, more: Partial<ToldBlank> & { kind?: BlankKind } = {}): this {
    return this.line(x1, y, x2, y).blank(more.kind ?? 'text', [x1, y, x2, y + 14], label, more);
  }
  boxed(rect: Rect, label: string | null, more: Partial<ToldBlank> & { kind?: BlankKind } = {}): this {
    return this.box(rect).blank(more.kind ?? 'text', rect, label, more);
  }
  /** A box to tick, with its words behind it. */
  tick(x: number, y: number, label: string, more: Partial<ToldBlank> = {}): this {
    return this.box([x, y, x + 8, y + 8])
      .text(x + 12, y + 1, label)
      .blank('checkbox', [x, y, x + 8, y + 8], label, more);
  }
  /** Cells of one character each. */
  comb(x: number, y: number, cells: number, width: number, label: string, more: Partial<ToldBlank> = {}): this {
    for (let at = 0; at < cells; at++) this.box([x + at * width, y, x + (at + 1) * width, y + 16]);
    return this.blank('comb', [x, y, x + cells * width, y + 16], label, { cells, limit: cells, ...more });
  }

  /** The form without fields. */
  async flat(): Promise<Uint8Array> {
    return (await this.drawn()).save();
  }
  private async drawn({ shift = [0, 0], firstPage, reword = {} }: EditionChanges = {}): Promise<PDFDocument> {
    const doc = await PDFDocument.create();
    this.reword = reword;
    const fonts = { plain: await doc.embedFont(StandardFonts.Helvetica), bold: await doc.embedFont(StandardFonts.HelveticaBold) };
    if (firstPage) {
      const page = doc.addPage(this.size);
      for (const [at, words] of firstPage.entries())
        page.drawText(words, { x: 60, y: this.size[1] - 80 - at * 16, size: 10, font: fonts.plain });
    }
    for (const steps of this.pages) {
      const page = doc.addPage(this.size);
      page.translateContent(...shift);
      for (const { draw } of steps) draw(page, fonts);
    }
    return doc;
  }
  /** The form with a field at each blank. */
  async fillable(changes: EditionChanges = {}): Promise<Uint8Array> {
    const { rename = (name) => name, shift = [0, 0], change = (blank) => blank } = changes;
    const doc = await this.drawn(changes);
    const { context } = doc;
    const kept = this.blanks.flatMap((blank, index) => {
      const changed = change(blank, index);
      return changed ? { ...changed, name: rename(blank.name, index), page: blank.page + (changes.firstPage ? 1 : 0) } : [];
    });
    const refs = kept.map(({ name, rect, kind, page, limit, multiline }) => {
      const isTick = kind === 'checkbox';
      const flags = (multiline ? 1 << 12 : 0) | (kind === 'comb' ? 1 << 24 : 0);
      const state = context.register(context.stream('', { Type: 'XObject', Subtype: 'Form', BBox: [0, 0, 8, 8] }));
      const widget = context.obj({
        Type: 'Annot',
        Subtype: 'Widget',
        FT: isTick ? 'Btn' : kind === 'signature' ? 'Sig' : 'Tx',
        Rect: rect.map((at, side) => at + shift[side % 2]!),
        F: 4,
        P: doc.getPage(page - 1).ref,
        ...(flags && { Ff: flags }),
        ...(limit && { MaxLen: limit }),
        ...(isTick && { AP: { N: { Yes: state } }, AS: 'Off' }),
      });
      widget.set(PDFName.of('T'), PDFString.of(name));
      return { ref: context.register(widget), page };
    });
    for (const [index, page] of doc.getPages().entries())
      page.node.set(PDFName.of('Annots'), context.obj(refs.filter((one) => one.page === index + 1).map(({ ref }) => ref)));
    const form = context.obj({ Fields: refs.map(({ ref }) => ref) });
    form.set(PDFName.of('DA'), PDFString.of('/Helv 0 Tf 0 g'));
    doc.catalog.set(PDFName.of('AcroForm'), context.register(form));
    return doc.save();
  }
}
