import type { PDFDocument, PDFObject, PDFRef } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFName, PDFRef as Ref } from '@cantoo/pdf-lib';
import { dictEntry, entry, rawEntry } from './document.js';

/** Takes references to objects that are gone out of the structure tree (ISO 32000-2, 14.7.5.3, object references). */
export function dropStructure(doc: PDFDocument, dropped: ReadonlySet<PDFRef>): void {
  const root = dictEntry(doc.catalog, 'StructTreeRoot');
  if (!root) return;
  const seen = new Set<PDFObject>();
  const K = PDFName.of('K');
  const isGone = (kid: PDFObject | undefined): boolean => {
    if (!(kid instanceof PDFDict) || String(entry(kid, 'Type')) !== '/OBJR') return false;
    const object = rawEntry(kid, 'Obj');
    return object instanceof Ref && dropped.has(object);
  };
  const queue: PDFDict[] = [root];
  for (let at = 0; at < queue.length; at++) {
    const element = queue[at]!;
    if (seen.has(element)) continue;
    seen.add(element);
    const kids = entry(element, 'K');
    if (kids instanceof PDFArray) {
      for (let index = kids.size() - 1; index >= 0; index--) {
        const kid = kids.lookup(index);
        if (isGone(kid)) kids.remove(index);
        else if (kid instanceof PDFDict) queue.push(kid);
      }
    } else if (isGone(kids)) element.delete(K);
    else if (kids instanceof PDFDict) queue.push(kids);
  }
}
