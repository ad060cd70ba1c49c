import { PDFArray, PDFBool, PDFDict, PDFHexString, PDFName, PDFNumber, PDFRef, PDFStream, PDFString } from '@cantoo/pdf-lib';
import type { PDFContext, PDFObject } from '@cantoo/pdf-lib';
import { ByteWriter } from '../byte-writer.js';
import { hexOf, hexPairs } from '../hex.js';

/** Where one object stands in a base block. `stream`: where the bytes of its stream begin and end. */
export interface BaseObject {
  number: number;
  from: number;
  to: number;
  stream: [from: number, to: number] | null;
}

/** What every copy of a template has in common, written once. */
export interface BaseBlock {
  writer: ByteWriter;
  objects: BaseObject[];
  /** Number of every reference that was written or reserved. */
  numbers: ReadonlyMap<PDFRef, number>;
}

const LENGTH = PDFName.of('Length');
/** The free entry that a cross-reference begins with (ISO 32000-2, 7.5.4). */
export const XREF_HEAD = '0000000000 65535 f\r\n';

/**
 * An object as ASCII text. Strings are written in hexadecimal, so that they are found again to be encrypted; references that lead nowhere as null.
 * @param numbers number of each reference in the new file
 * @param skip keys of the outermost dictionary that are left out, with their slashes
 */
export function objectText(object: PDFObject, numbers: ReadonlyMap<PDFRef, number>, skip?: ReadonlySet<string>): string {
  if (object instanceof PDFRef) {
    const number = numbers.get(object);
    return number === undefined ? 'null' : `${number} 0 R`;
  }
  if (object instanceof PDFString || object instanceof PDFHexString) return `<${hexOf(object.asBytes())}>`;
  if (object instanceof PDFArray)
    return `[${object
      .asArray()
      .map((one) => objectText(one, numbers))
      .join(' ')}]`;
  if (object instanceof PDFDict) {
    let out = '<<';
    for (const [key, value] of object.entries()) {
      if (skip?.has(key.asString())) continue;
      out += `${key.toString()} ${objectText(value, numbers)}`;
    }
    return `${out}>>`;
  }
  if (object instanceof PDFName) return object.toString().replace(/[^\u0021-\u007e]/g, (char) => `#${hexPairs[char.charCodeAt(0) & 0xff]}`);
  if (object instanceof PDFNumber) return Number.isFinite(object.asNumber()) ? object.toString() : '0';
  // What the parser could not read is as good as absent.
  return object instanceof PDFBool ? object.toString() : 'null';
}

/**
 * Writes everything that can be reached from the given objects, numbered from 1 without gaps.
 * @param roots objects to begin with, such as the catalog
 * @param reserved references whose objects vary from copy to copy; what they lead to is written, they themselves are not
 * @param dropped references that are written as null, such as widgets that are no longer there
 * @param between objects that the caller writes after the base and before the reserved ones
 */
export function writeBase(
  context: PDFContext,
  roots: readonly PDFRef[],
  reserved: readonly PDFRef[],
  dropped: ReadonlySet<PDFRef>,
  between: number,
): BaseBlock {
  const numbers = new Map<PDFRef, number>();
  const order: [PDFRef, PDFObject][] = [];
  const special = new Set(reserved);
  const queue: PDFObject[] = [...roots, ...reserved.flatMap((ref) => context.lookup(ref) ?? [])];
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
    else if (object instanceof PDFArray) queue.push(...object.asArray());
    else if (object instanceof PDFStream) queue.push(object.dict);
  }
  reserved.forEach((ref, index) => numbers.set(ref, order.length + between + 1 + index));

  const writer = new ByteWriter().text('%PDF-1.7\n').bytes(Uint8Array.of(0x25, 0xe2, 0xe3, 0xcf, 0xd3, 0x0a));
  const objects: BaseObject[] = [];
  for (const [ref, object] of order) {
    const number = numbers.get(ref)!;
    const from = writer.length;
    let stream: BaseObject['stream'] = null;
    if (object instanceof PDFStream) {
      const contents = object.getContents();
      const dict = objectText(object.dict, numbers, new Set([LENGTH.asString()]));
      writer.text(`${number} 0 obj\n${dict.slice(0, -2)}/Length ${contents.length}>>\nstream\n`);
      stream = [writer.length, writer.length + contents.length];
      writer.bytes(contents).text('\nendstream\nendobj\n');
    } else writer.text(`${number} 0 obj\n${objectText(object, numbers)}\nendobj\n`);
    objects.push({ number, from, to: writer.length, stream });
  }
  return { writer, objects, numbers };
}
