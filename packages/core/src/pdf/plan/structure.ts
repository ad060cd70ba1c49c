import type { PDFDocument, PDFObject, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRef as Ref } from '@cantoo/pdf-lib';
import { arrayEntry, dictEntry, entry, numberEntry, rawEntry } from '../read/document.js';
import type { WidgetPlan } from './widget-plan.js';

const name = (text: string): PDFName => PDFName.of(text);

/** Kids of the structure tree that are object references (ISO 32000-2, 14.7.5.3), each with its element; `replace` puts something in its place. */
function* objectReferences(doc: PDFDocument): Generator<{ element: PDFDict; object: PDFRef; replace(kid: PDFDict | null): void }> {
  const root = dictEntry(doc.catalog, 'StructTreeRoot');
  if (!root) return;
  const seen = new Set<PDFObject>();
  const K = name('K');
  const objectOf = (kid: PDFObject | undefined): PDFRef | null => {
    if (!(kid instanceof PDFDict) || String(entry(kid, 'Type')) !== '/OBJR') return null;
    const object = rawEntry(kid, 'Obj');
    return object instanceof Ref ? object : null;
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
        const object = objectOf(kid);
        if (object) yield { element, object, replace: (other) => (other ? kids.set(index, other) : kids.remove(index)) };
        else if (kid instanceof PDFDict) queue.push(kid);
      }
    } else {
      const object = objectOf(kids);
      if (object) yield { element, object, replace: (other) => void (other ? element.set(K, other) : element.delete(K)) };
      else if (kids instanceof PDFDict) queue.push(kids);
    }
  }
}

/** Takes references to objects that are gone out of the structure tree. */
export function dropStructure(doc: PDFDocument, dropped: ReadonlySet<PDFRef>): void {
  for (const { object, replace } of objectReferences(doc)) if (dropped.has(object)) replace(null);
}

/** The leaf of a number tree (ISO 32000-2, 7.9.7) to which the largest numbers go; one is made where there is none. */
export function lastLeaf(doc: PDFDocument, root: PDFDict): { numbers: PDFArray; limits: PDFArray | null } {
  let tree = dictEntry(root, 'ParentTree');
  if (!tree) root.set(name('ParentTree'), (tree = doc.context.obj({ Nums: [] })));
  const kids = arrayEntry(tree, 'Kids');
  if (!kids) {
    let numbers = arrayEntry(tree, 'Nums');
    if (!numbers) tree.set(name('Nums'), (numbers = PDFArray.withContext(doc.context)));
    return { numbers, limits: null };
  }
  const numbers = PDFArray.withContext(doc.context);
  const limits = doc.context.obj([0, 0]);
  kids.push(doc.context.register(doc.context.obj({ Limits: limits, Nums: numbers })));
  return { numbers, limits };
}

/** The first key of the parent tree that is free (ISO 32000-2, table 354, ParentTreeNextKey). */
export function freeKey(root: PDFDict): number {
  let highest = (numberEntry(root, 'ParentTreeNextKey') ?? 0) - 1;
  const seen = new Set<PDFDict>();
  const walk = (node: PDFDict | undefined): void => {
    if (!node || seen.has(node)) return;
    seen.add(node);
    const numbers = arrayEntry(node, 'Nums');
    for (let index = 0; numbers && index < numbers.size(); index += 2) {
      const key = numbers.lookup(index);
      if (key instanceof PDFNumber) highest = Math.max(highest, key.asNumber());
    }
    const kids = arrayEntry(node, 'Kids');
    for (let index = 0; kids && index < kids.size(); index++) {
      const kid = kids.lookup(index);
      if (kid instanceof PDFDict) walk(kid);
    }
  };
  walk(dictEntry(root, 'ParentTree'));
  return highest + 1;
}

/** Adds a kid to an element, or to the root, after those that it has. */
export function addKid(doc: PDFDocument, element: PDFDict, kid: PDFRef): void {
  const kids = entry(element, 'K');
  if (kids instanceof PDFArray) kids.push(kid);
  else element.set(name('K'), kids ? doc.context.obj([rawEntry(element, 'K')!, kid]) : kid);
}

/** The element that holds all others, where there is one, and otherwise the root. */
export function outermost(doc: PDFDocument, root: PDFDict): { element: PDFDict; ref: PDFRef } | null {
  const kids = rawEntry(root, 'K');
  const list = doc.context.lookup(kids);
  const only = list instanceof PDFArray ? (list.size() === 1 ? list.get(0) : undefined) : kids;
  const element = doc.context.lookup(only);
  if (only instanceof Ref && element instanceof PDFDict && String(entry(element, 'S')) === '/Document') return { element, ref: only };
  const ref = rawEntry(doc.catalog, 'StructTreeRoot');
  return ref instanceof Ref ? { element: root, ref } : null;
}

/**
 * Lets the values of a tagged form stand in the structure elements of their fields (ISO 32000-2, 14.7.5.2 and 14.8.4), so that they are read aloud in their
 * place; those of fields that have no place among them stand one after the other at their end. Each widget gets the number under which its content is marked in its page's overlay.
 * @param planOf plan of each widget that is drawn
 * @returns key of each page's overlay in the parent tree; null: nothing is marked on it
 */
export function tagValues(
  doc: PDFDocument,
  pages: readonly PDFPage[],
  overlays: readonly PDFRef[],
  planOf: ReadonlyMap<PDFDict, WidgetPlan>,
): (number | null)[] {
  const root = dictEntry(doc.catalog, 'StructTreeRoot');
  const elements: PDFRef[][] = pages.map(() => []);
  if (!root) return pages.map(() => null);
  const refOf = new Map(doc.context.enumerateIndirectObjects().map(([ref, object]) => [object, ref]));
  const placed = new Set<WidgetPlan>();
  /** @returns the marked content of a widget as a kid of an element (ISO 32000-2, table 357) */
  const contentOf = (plan: WidgetPlan): PDFDict => {
    const mark = elements[plan.page]!.length;
    plan.mark = `/Span<</MCID ${mark}>>BDC\n`;
    placed.add(plan);
    return doc.context.obj({ Type: 'MCR', Pg: pages[plan.page]!.ref, Stm: overlays[plan.page]!, MCID: mark }) as PDFDict;
  };
  for (const { element, object, replace } of objectReferences(doc)) {
    const widget = doc.context.lookup(object);
    const plan = widget instanceof PDFDict ? planOf.get(widget) : undefined;
    const own = refOf.get(element);
    if (!plan || !own) continue;
    replace(contentOf(plan));
    // A form element is one with a widget; what is there now is text, which an alternative would be read in place of.
    if (String(entry(element, 'S')) === '/Form') element.set(name('S'), name('Span'));
    element.delete(name('Alt'));
    elements[plan.page]!.push(own);
  }
  const last = outermost(doc, root);
  for (const plan of new Set(planOf.values())) {
    if (!last || placed.has(plan)) continue;
    const content = contentOf(plan);
    const own = doc.context.register(doc.context.obj({ Type: 'StructElem', S: 'P', P: last.ref, Pg: pages[plan.page]!.ref, K: content }));
    addKid(doc, last.element, own);
    elements[plan.page]!.push(own);
  }
  let key = freeKey(root);
  if (elements.every((marks) => marks.length === 0)) return pages.map(() => null);
  const { numbers, limits } = lastLeaf(doc, root);
  limits?.set(0, PDFNumber.of(key));
  const keys = elements.map((marks) => {
    if (marks.length === 0) return null;
    numbers.push(PDFNumber.of(key));
    numbers.push(doc.context.obj(marks));
    return key++;
  });
  limits?.set(1, PDFNumber.of(key - 1));
  root.set(name('ParentTreeNextKey'), PDFNumber.of(key));
  return keys;
}
