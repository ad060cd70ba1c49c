import type { PDFDocument, PDFObject, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import { pageEntry } from '../read/document.js';
import { fingerprint } from '../fingerprint.js';
import { objectText } from './serialise.js';

/** An object as it goes into another file. */
export interface MovedObject {
  /** The same for objects that are the same. */
  key: string;
  /** The number that it has to have, because something in it leads back to it; null: any. */
  number: number | null;
  /** Of a stream open: its length and closing `>>` follow. */
  dict: string;
  stream: Uint8Array | null;
}

const LEVELS = 200;
/** Entries of a page that it may have from the page tree (ISO 32000-2, table 31). */
const INHERITED = ['Resources', 'MediaBox', 'CropBox', 'Rotate'] as const;
/** What ties a page to its document: its tree, its tags, its place in threads, its fields. */
const LEFT = new Set(['/Parent', '/StructParents', '/B', '/AA', '/Tabs', ...INHERITED.map((name) => `/${name}`)]);

/** Takes objects of one document into another file, each with everything that it leads to, but for pages and their tree. */
export class SharedObjects {
  private readonly numbers = new Map<PDFRef, number>();
  private readonly open = new Set<PDFRef>();
  private readonly left: ReadonlySet<PDFRef>;

  /** @param take writes an object, or finds it written already @param reserve a number for one whose turn comes later */
  constructor(
    private readonly doc: PDFDocument,
    private readonly take: (object: MovedObject) => number,
    private readonly reserve: () => number,
  ) {
    this.left = new Set(doc.getPages().map(({ ref }) => ref));
  }

  private visit(object: PDFObject | undefined, level: number): void {
    if (object instanceof PDFRef) this.move(object, level);
    else if (object instanceof PDFArray) for (const one of object.asArray()) this.visit(one, level);
    else if (object instanceof PDFDict)
      for (const [key, value] of object.entries()) if (key.asString() !== '/Parent') this.visit(value, level);
  }

  private move(ref: PDFRef, level: number): void {
    if (this.numbers.has(ref) || this.left.has(ref) || level > LEVELS) return;
    if (this.open.has(ref)) return void this.numbers.set(ref, this.reserve());
    const target = this.doc.context.lookup(ref);
    if (!target) return;
    this.open.add(ref);
    this.visit(target instanceof PDFStream ? target.dict : target, level + 1);
    this.open.delete(ref);
    const number = this.numbers.get(ref) ?? null;
    const skip = new Set(target instanceof PDFStream ? ['/Length'] : ['/Parent']);
    const whole = objectText(target instanceof PDFStream ? target.dict : target, this.numbers, skip);
    const stream = target instanceof PDFStream ? target.getContents() : null;
    const dict = stream ? whole.slice(0, -2) : whole;
    this.numbers.set(
      ref,
      this.take({
        key: number === null ? `${fingerprint(dict)} ${stream ? fingerprint(stream) : ''}` : `own ${number}`,
        number,
        dict,
        stream,
      }),
    );
  }

  /** The dictionary of a page in the other file, without its tree. */
  pageText(page: PDFPage): string {
    for (const name of INHERITED) this.visit(pageEntry(page, name), 0);
    for (const [key, value] of page.node.entries()) if (!LEFT.has(key.asString())) this.visit(value, 0);
    const own = objectText(page.node, this.numbers, LEFT);
    const inherited = INHERITED.flatMap((name) => {
      const value = pageEntry(page, name);
      return value ? [`/${name} ${objectText(value, this.numbers)}`] : [];
    });
    return `${own.slice(0, -2)}${inherited.join('')}>>`;
  }
}
