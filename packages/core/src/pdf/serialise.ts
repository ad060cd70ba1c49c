import { PDFArray, PDFDict, PDFName, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { PDFContext, PDFObject } from '@cantoo/pdf-lib';
import { ByteWriter } from './byte-writer.js';

/** What every copy of a template has in common, written once. */
export interface BaseBlock {
  /** Header and objects. */
  bytes: Uint8Array;
  /** Cross-reference entries of the objects, 20 bytes each, the free first one included (ISO 32000-2, 7.5.4). */
  xref: string;
  /** Number of objects with the free one. */
  count: number;
  /** Numbers of the reserved references, in their order; they follow the written objects. */
  reserved: number[];
  /** Object number of every reference that was written. */
  numbers: ReadonlyMap<PDFRef, number>;
  root: number;
  info: number | null;
}

const LENGTH = PDFName.of('Length');
export const xrefEntry = (offset: number): string => `${String(offset).padStart(10, '0')} 00000 n\r\n`;

/**
 * Writes everything that can be reached from the catalog and the information dictionary, numbered from 1 without gaps.
 * @param reserved references whose objects vary from copy to copy; they get the next numbers and are not written
 * @param dropped references that are written as null, such as widgets that are no longer there
 * @param also references that only the varying objects lead to
 */
export function writeBase(
  context: PDFContext,
  root: PDFRef,
  info: PDFRef | null,
  reserved: readonly PDFRef[],
  dropped: ReadonlySet<PDFRef>,
  also: readonly PDFRef[],
): BaseBlock {
  const numbers = new Map<PDFRef, number>();
  const order: [PDFRef, PDFObject][] = [];
  const special = new Set(reserved);
  const queue: PDFObject[] = [root, ...(info ? [info] : []), ...also];
  const seen = new Set<PDFObject>();
  for (let at = 0; at < queue.length; at++) {
    const object = queue[at]!;
    if (object instanceof PDFRef) {
      if (special.has(object) || dropped.has(object) || numbers.has(object)) continue;
      const target = context.lookup(object);
      if (!target) continue;
      numbers.set(object, order.length + 1);
      order.push([object, target]);
      queue.push(target);
      continue;
    }
    if (seen.has(object)) continue;
    seen.add(object);
    if (object instanceof PDFDict) for (const [, value] of object.entries()) queue.push(value);
    else if (object instanceof PDFArray) for (let index = 0; index < object.size(); index++) queue.push(object.get(index));
    else if (object instanceof PDFStream) queue.push(object.dict);
  }
  reserved.forEach((ref, index) => numbers.set(ref, order.length + 1 + index));

  const out = new ByteWriter().text('%PDF-1.7\n%\xe2\xe3\xcf\xd3\n');
  const write = (object: PDFObject): void => {
    if (object instanceof PDFRef) {
      const number = numbers.get(object);
      out.text(number === undefined ? 'null' : `${number} 0 R`);
    } else if (object instanceof PDFStream) {
      const contents = object.getContents();
      out.text('<<');
      for (const [key, value] of object.dict.entries()) if (key !== LENGTH) pair(key, value);
      out.text(`/Length ${contents.length}>>\nstream\n`).bytes(contents).text('\nendstream');
    } else if (object instanceof PDFDict) {
      out.text('<<');
      for (const [key, value] of object.entries()) pair(key, value);
      out.text('>>');
    } else if (object instanceof PDFArray) {
      out.text('[');
      for (let index = 0; index < object.size(); index++) {
        if (index > 0) out.text(' ');
        write(object.get(index));
      }
      out.text(']');
    } else out.reserve(object.sizeInBytes(), (buffer, offset) => object.copyBytesInto(buffer, offset));
  };
  const pair = (key: PDFName, value: PDFObject): void => {
    write(key);
    out.text(' ');
    write(value);
  };
  let xref = '0000000000 65535 f\r\n';
  for (const [ref, object] of order) {
    xref += xrefEntry(out.length);
    out.text(`${numbers.get(ref)} 0 obj\n`);
    write(object);
    out.text('\nendobj\n');
  }
  return {
    bytes: out.done(),
    xref,
    count: order.length + 1,
    reserved: reserved.map((ref) => numbers.get(ref)!),
    numbers,
    root: numbers.get(root)!,
    info: info ? (numbers.get(info) ?? null) : null,
  };
}
