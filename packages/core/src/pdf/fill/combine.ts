import { ByteWriter } from '../byte-writer.js';
import type { CompiledTemplate } from '../plan/compile.js';
import type { TailObject } from '../tail-object.js';
import { writeObject } from '../tail-object.js';
import { tailObject, tailOf } from '../verify/copy-tail.js';
import { openPdf } from '../read/document.js';
import { drawAppearances } from '../plan/draw-appearances.js';
import { textString } from './field-value.js';
import { drawCopy } from './fill.js';
import type { FillOptions } from './fill-options.js';
import type { PageSize } from '../field.js';
import { fingerprint } from '../fingerprint.js';
import { pageRotation, visibleBox } from '../read/inspect.js';
import { XREF_HEAD } from '../plan/serialise.js';
import { SharedObjects } from '../plan/shared-objects.js';
import type { FieldValues, FillNote } from '../value.js';

export interface CombineOptions {
  /** A copy with an odd number of pages gets a blank back, so that the next one begins on a sheet of its own. */
  duplex?: boolean;
  /** Written into the information dictionary. */
  title?: string;
}

/** One copy in a combined file. */
export interface CombinedCopy {
  values: FieldValues;
  /** What its bookmark says. */
  bookmark: string;
  options?: FillOptions;
}

/** Pages below one node of the page tree. */
const FAN = 64;
const FLUSH = 1 << 20;

/**
 * Writes many flattened copies into one file, which carries the art of each template once (ISO 32000-2, 7.7.3, page tree; 12.3.3, outline).
 * Bytes go to `sink` in blocks as they are made, so that memory stays flat however many copies there are.
 */
export class CombinedFile {
  private readonly writer = new ByteWriter(FLUSH * 2);
  private readonly offsets: number[] = [];
  private flushed = 0;
  private digest = '';
  private readonly bases = new Map<CompiledTemplate, number>();
  /** Numbers of objects of foreign files, by what is in them. */
  private readonly shared = new Map<string, number>();
  private readonly pages: number[] = [];
  private readonly nodes: number[] = [];
  private readonly bookmarks: { title: string; page: number }[] = [];
  private readonly catalog: number;
  private readonly outline: number;

  /** @param sink is called with bytes that it must use or copy before it returns */
  constructor(
    private readonly sink: (bytes: Uint8Array) => void,
    private readonly options: CombineOptions = {},
  ) {
    this.writer.text('%PDF-1.7\n').bytes(Uint8Array.of(0x25, 0xe2, 0xe3, 0xcf, 0xd3, 0x0a));
    this.catalog = this.reserve();
    this.outline = this.reserve();
  }

  private reserve(count = 1): number {
    const first = this.offsets.length + 1;
    for (let index = 0; index < count; index++) this.offsets.push(0);
    return first;
  }
  private put(object: TailObject): void {
    this.offsets[object.number - 1] = this.flushed + this.writer.length;
    writeObject(this.writer, object);
    if (this.writer.length >= FLUSH) this.flush();
  }
  private flush(): void {
    const bytes = this.writer.view();
    this.digest = fingerprint(this.digest + fingerprint(bytes));
    this.sink(bytes);
    this.flushed += bytes.length;
    this.writer.clear();
  }

  /** Takes in what all copies of a template share. @returns what is added to its object numbers */
  private shift(compiled: CompiledTemplate): number {
    const known = this.bases.get(compiled);
    if (known !== undefined) return known;
    const shift = this.offsets.length;
    this.reserve(compiled.objects.length);
    this.bases.set(compiled, shift);
    for (const { number, from, to, stream } of compiled.objects) {
      // The catalog and information of a template, and its page tree, are not those of the combined file.
      if (number === compiled.root || compiled.treeObjects.has(number)) {
        this.put({ number: number + shift, dict: 'null', stream: null });
        continue;
      }
      const end = stream ? stream[0] : to;
      let head = '';
      for (let at = from; at < end; at++) head += String.fromCharCode(compiled.base[at]!);
      this.offsets[number + shift - 1] = this.flushed + this.writer.length;
      this.writer.text(`${number + shift} 0 obj\n`).text(shifted(head.slice(head.indexOf(' obj\n') + 5), shift));
      if (stream) this.writer.bytes(compiled.base.subarray(stream[0], to));
      if (this.writer.length >= FLUSH) this.flush();
    }
    return shift;
  }

  private page(entries: string): number {
    const number = this.reserve();
    if (this.pages.length % FAN === 0) this.nodes.push(this.reserve());
    const parent = this.nodes.at(-1)!;
    this.pages.push(number);
    this.put({ number, dict: `${entries.slice(0, -2)}/Parent ${parent} 0 R>>`, stream: null });
    return number;
  }

  /** Adds one copy. @returns what is to be known of its values */
  add(compiled: CompiledTemplate, { values, bookmark, options }: CombinedCopy): FillNote[] {
    if (compiled.finish !== 'flattened')
      throw new RangeError('Only flattened copies can be combined: fields of one name would become one.');
    const { objects, next, notes } = drawCopy(compiled, values, options);
    this.place(compiled, objects, next, bookmark);
    return notes;
  }

  /** Writes the objects of one copy and its pages. */
  private place(compiled: CompiledTemplate, objects: readonly TailObject[], next: number, bookmark: string): void {
    const shift = this.shift(compiled);
    const own = this.reserve(next - compiled.first);
    const move = own - compiled.first;
    for (const object of objects)
      this.put({ ...object, number: object.number + move, dict: moved(object.dict, compiled.first, shift, move) });
    compiled.allPages.forEach(({ dict }, index) => {
      const number = this.page(moved(dict, compiled.first, shift, move));
      if (index === 0) this.bookmarks.push({ title: bookmark, page: number });
    });
    this.blankBack(compiled.allPages.length, compiled.description.pages.at(-1));
  }

  private blankBack(pages: number, last: Pick<PageSize, 'width' | 'height' | 'rotation'> | undefined): void {
    if (!this.options.duplex || pages % 2 === 0 || !last) return;
    const [width, height] = last.rotation % 180 === 0 ? [last.width, last.height] : [last.height, last.width];
    this.page(`<</Type/Page/MediaBox[0 0 ${width} ${height}]/Resources<<>>>>`);
  }

  /**
   * Adds a copy as it was made, from its bytes: nothing is filled anew.
   * @param compiled its template, ready as it was when the copy was made; null: that is not known any more
   * @param file a whole copy without a password
   * @returns pages
   * @throws MailbagError pdf-*
   */
  async addMade(compiled: CompiledTemplate | null, file: Uint8Array, bookmark: string): Promise<number> {
    const tail = compiled?.finish === 'flattened' && beginsWith(file, compiled.base) ? tailOf(file, compiled.first) : null;
    if (!compiled || !tail) return this.addForeign(file, bookmark);
    const objects = tail.starts.map((_, index): TailObject => {
      const number = compiled.first + index;
      const { dict, stream } = tailObject(file, tail, number);
      return stream ? { number, dict: dict.replace(/\/Length \d+>>$/, ''), stream: file.slice(...stream) } : { number, dict, stream: null };
    });
    this.place(compiled, objects, compiled.first + objects.length, bookmark);
    return compiled.allPages.length;
  }

  /** Adds the pages of any PDF as they look: what stands in fields is drawn into them, and what several files share stands there once. */
  private async addForeign(file: Uint8Array, bookmark: string): Promise<number> {
    const { doc } = await openPdf(file, bookmark);
    const pages = doc.getPages();
    const kept = new SharedObjects(
      doc,
      (object) => {
        const known = this.shared.get(object.key);
        if (known !== undefined) return known;
        const number = object.number ?? this.reserve();
        if (object.number === null) this.shared.set(object.key, number);
        this.put({ number, dict: object.dict, stream: object.stream });
        return number;
      },
      () => this.reserve(),
    );
    pages.forEach((page, index) => {
      drawAppearances(page);
      const number = this.page(kept.pageText(page));
      if (index === 0) this.bookmarks.push({ title: bookmark, page: number });
    });
    const last = pages.at(-1);
    this.blankBack(pages.length, last && { ...visibleBox(last), rotation: pageRotation(last) });
    return pages.length;
  }

  /** Ends the file. */
  end(): void {
    const tree = this.tree();
    this.writeOutline();
    const labelled = this.bookmarks.length > 0 ? `/Outlines ${this.outline} 0 R/PageMode/UseOutlines` : '';
    this.put({ number: this.catalog, dict: `<</Type/Catalog/Pages ${tree} 0 R${labelled}>>`, stream: null });
    const info = this.reserve();
    this.put({ number: info, dict: `<<${this.options.title ? `/Title${textString(this.options.title)}` : ''}>>`, stream: null });
    const start = this.flushed + this.writer.length;
    const size = this.offsets.length + 1;
    this.writer.text(`xref\n0 ${size}\n${XREF_HEAD}`);
    for (const offset of this.offsets) {
      this.writer.xref(offset);
      if (this.writer.length >= FLUSH) this.flush();
    }
    const id = fingerprint(this.digest + start);
    this.writer.text(
      `trailer\n<</Size ${size}/Root ${this.catalog} 0 R/Info ${info} 0 R/ID[<${id}><${id}>]>>\nstartxref\n${start}\n%%EOF\n`,
    );
    this.flush();
  }

  /** Writes the nodes of the page tree, FAN kids each, level by level. @returns its root */
  private tree(): number {
    let level = this.nodes.map((number, index) => {
      const kids = this.pages.slice(index * FAN, (index + 1) * FAN);
      return { number, kids, count: kids.length };
    });
    if (level.length === 0) level = [{ number: this.reserve(), kids: [], count: 0 }];
    while (level.length > 1) {
      const above: typeof level = [];
      for (let from = 0; from < level.length; from += FAN) {
        const below = level.slice(from, from + FAN);
        const number = this.reserve();
        for (const node of below) this.node(node, number);
        above.push({ number, kids: below.map((node) => node.number), count: below.reduce((sum, node) => sum + node.count, 0) });
      }
      level = above;
    }
    this.node(level[0]!, null);
    return level[0]!.number;
  }
  private node({ number, kids, count }: { number: number; kids: number[]; count: number }, parent: number | null): void {
    const above = parent === null ? '' : `/Parent ${parent} 0 R`;
    this.put({ number, dict: `<</Type/Pages/Count ${count}/Kids[${kids.map((kid) => `${kid} 0 R`).join(' ')}]${above}>>`, stream: null });
  }
  private writeOutline(): void {
    const first = this.reserve(this.bookmarks.length);
    const last = first + this.bookmarks.length - 1;
    const ends = this.bookmarks.length > 0 ? `/First ${first} 0 R/Last ${last} 0 R/Count ${this.bookmarks.length}` : '';
    this.put({ number: this.outline, dict: `<</Type/Outlines${ends}>>`, stream: null });
    this.bookmarks.forEach(({ title, page }, index) => {
      const number = first + index;
      const siblings = `${index > 0 ? `/Prev ${number - 1} 0 R` : ''}${number < last ? `/Next ${number + 1} 0 R` : ''}`;
      this.put({
        number,
        dict: `<</Title${textString(title)}/Parent ${this.outline} 0 R/Dest[${page} 0 R/Fit]${siblings}>>`,
        stream: null,
      });
    });
  }
}

const beginsWith = (file: Uint8Array, head: Uint8Array): boolean => {
  if (file.length < head.length) return false;
  for (let at = 0; at < head.length; at++) if (file[at] !== head[at]) return false;
  return true;
};

/** Strings stand in hexadecimal, so `N 0 R` is nothing but a reference wherever it is found. */
const REFERENCE = /\b(\d+) 0 R\b/g;
const shifted = (text: string, shift: number): string =>
  shift === 0 ? text : text.replace(REFERENCE, (_, number: string) => `${Number(number) + shift} 0 R`);
/** References below `first` belong to the base, the others to the copy. */
function moved(text: string, first: number, shift: number, move: number): string {
  return text.replace(REFERENCE, (_, number: string) => `${Number(number) + (Number(number) < first ? shift : move)} 0 R`);
}
