import type { PDFDict, PDFDocument, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { PDFName, PDFNumber } from '@cantoo/pdf-lib';
import { dictEntry } from '../read/document.js';
import { addKid, freeKey, lastLeaf, outermost } from '../plan/structure.js';

/** A widget that has just been written. */
export interface WrittenWidget {
  ref: PDFRef;
  dict: PDFDict;
  page: PDFPage;
}

/**
 * Gives widgets their elements in the structure of a tagged file: one Form element each, in their order, which is what tab goes by there
 * (ISO 32000-2, 14.8.4.8.2 and table 31, Tabs). A file without structure is left as it is.
 * @returns whether the file is tagged
 */
export function tagWidgets(doc: PDFDocument, widgets: readonly WrittenWidget[]): boolean {
  const root = dictEntry(doc.catalog, 'StructTreeRoot');
  const parent = root && outermost(doc, root);
  if (!root || !parent) return false;
  let key = freeKey(root);
  const first = key;
  const leaf = lastLeaf(doc, root);
  for (const { ref, dict, page } of widgets) {
    const element = doc.context.register(
      doc.context.obj({ Type: 'StructElem', S: 'Form', P: parent.ref, Pg: page.ref, K: [{ Type: 'OBJR', Obj: ref, Pg: page.ref }] }),
    );
    addKid(doc, parent.element, element);
    dict.set(PDFName.of('StructParent'), PDFNumber.of(key));
    leaf.numbers.push(PDFNumber.of(key));
    leaf.numbers.push(element);
    key++;
  }
  if (leaf.limits) {
    leaf.limits.set(0, PDFNumber.of(first));
    leaf.limits.set(1, PDFNumber.of(Math.max(first, key - 1)));
  }
  root.set(PDFName.of('ParentTreeNextKey'), PDFNumber.of(key));
  return true;
}
