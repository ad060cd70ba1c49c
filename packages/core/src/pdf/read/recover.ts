import {
  PDFArray,
  PDFCatalog,
  PDFContext,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFObjectParser,
  PDFObjectStreamParser,
  PDFPageLeaf,
  PDFPageTree,
  PDFRawStream,
  PDFRef,
} from '@cantoo/pdf-lib';
import type { PDFObject } from '@cantoo/pdf-lib';

const name = (text: string): PDFName => PDFName.of(text);

/** One object from its bytes; null when they are none. */
function parseAt(bytes: Uint8Array, from: number, to: number, context: PDFContext): PDFObject | null {
  try {
    return PDFObjectParser.forBytes(bytes.subarray(from, to), context).parseObject();
  } catch {
    return null;
  }
}

/** Every object that can be found by its own header, whatever the cross-reference says. Later ones replace earlier ones, as updates do. */
async function collect(bytes: Uint8Array, text: string): Promise<PDFContext> {
  const context = PDFContext.create();
  const headers = [...text.matchAll(/(?<![0-9])(\d{1,8})\s+(\d{1,5})\s+obj\b/g)];
  for (const [index, header] of headers.entries()) {
    const object = parseAt(bytes, header.index + header[0].length, headers[index + 1]?.index ?? bytes.length, context);
    if (object) context.assign(PDFRef.of(Number(header[1]), Number(header[2])), object);
    if (!(object instanceof PDFRawStream) || String(object.dict.get(name('Type'))) !== '/ObjStm') continue;
    try {
      await PDFObjectStreamParser.forStream(object).parseIntoContext();
    } catch {
      // What was read of it before the damage stays.
    }
  }
  return context;
}

/** The entries of all trailers, the last word of each. */
function trailerOf(bytes: Uint8Array, text: string, context: PDFContext): Map<string, PDFObject> {
  const found = new Map<string, PDFObject>();
  const take = (dict: PDFDict): void => {
    for (const key of ['Root', 'Info', 'Encrypt']) {
      const value = dict.get(name(key));
      if (value) found.set(key, value);
    }
  };
  for (const [, object] of context.enumerateIndirectObjects()) {
    if (object instanceof PDFRawStream && String(object.dict.get(name('Type'))) === '/XRef') take(object.dict);
  }
  for (const trailer of text.matchAll(/trailer\s*(?=<<)/g)) {
    const dict = parseAt(bytes, trailer.index + trailer[0].length, Math.min(bytes.length, trailer.index + 65_536), context);
    if (dict instanceof PDFDict) take(dict);
  }
  return found;
}

function catalogOf(context: PDFContext, told: PDFObject | undefined): PDFRef {
  if (told instanceof PDFRef && context.lookup(told) instanceof PDFCatalog) return told;
  let form: PDFRef | null = null;
  let best: PDFRef | null = null;
  for (const [ref, object] of context.enumerateIndirectObjects()) {
    if (object instanceof PDFCatalog) best = ref;
    if (object instanceof PDFDict && object.get(name('Fields')) && context.lookup(object.get(name('Fields'))) instanceof PDFArray)
      form = ref;
  }
  if (best) return best;
  const tree = context.register(PDFPageTree.withContext(context));
  const catalog = PDFCatalog.withContextAndPages(context, tree);
  if (form) catalog.set(name('AcroForm'), form);
  return context.register(catalog);
}

/** Puts all pages that were found under one node, in the order of their numbers. */
function rebuildPages(context: PDFContext, catalog: PDFCatalog): void {
  const leaves = context.enumerateIndirectObjects().filter(([, object]) => object instanceof PDFPageLeaf);
  const tree = PDFPageTree.withContext(context);
  const ref = context.register(tree);
  const kids = PDFArray.withContext(context);
  for (const [leaf, object] of leaves) {
    kids.push(leaf);
    (object as PDFPageLeaf).set(name('Parent'), ref);
  }
  tree.set(name('Kids'), kids);
  tree.set(name('Count'), context.obj(leaves.length));
  catalog.set(name('Pages'), ref);
}

/** Nodes of a page tree, those that stand in several places as often as they do. The library would go through all of them, however many they are. */
const MOST_NODES = 100_000;

function isEndless(catalog: PDFCatalog): boolean {
  const queue = [catalog.lookup(name('Pages'))];
  for (let count = 0; queue.length > 0; count++) {
    if (count > MOST_NODES) return true;
    const node = queue.pop();
    const kids = node instanceof PDFDict ? node.lookup(name('Kids')) : undefined;
    if (kids instanceof PDFArray && queue.length + kids.size() > MOST_NODES) return true;
    if (kids instanceof PDFArray) for (let index = 0; index < kids.size(); index++) queue.push(kids.lookup(index));
  }
  return false;
}

/** Whether a document has pages that can be walked through. */
export function hasPages(doc: PDFDocument): boolean {
  try {
    return !isEndless(doc.catalog) && doc.getPageCount() > 0 && doc.getPages().length > 0;
  } catch {
    return false;
  }
}

/**
 * Whether objects begin that never end or the other way round. The library creeps over such stretches byte by byte, which takes seconds in
 * a large file.
 */
export const isTorn = (text: string): boolean => (text.match(/\d\s+obj\b/g)?.length ?? 0) !== (text.match(/\bendobj\b/g)?.length ?? 0);

/**
 * Puts a document together from what is left of it: objects found by their headers, a catalog, a page tree.
 * Null when nothing usable is left, or when it is encrypted, since its key is lost with its trailer.
 */
export async function recoverDocument(bytes: Uint8Array, text: string): Promise<PDFDocument | null> {
  const context = await collect(bytes, text);
  const trailer = trailerOf(bytes, text, context);
  if (trailer.has('Encrypt')) return null;
  context.trailerInfo.Root = catalogOf(context, trailer.get('Root'));
  const info = trailer.get('Info');
  if (info instanceof PDFRef) context.trailerInfo.Info = info;
  // The library has no door for a context that it did not read itself.
  const open = (): PDFDocument => Reflect.construct(PDFDocument, [context, true, false]) as PDFDocument;
  try {
    const doc = open();
    if (hasPages(doc)) return doc;
    rebuildPages(context, doc.catalog);
    const again = open();
    return hasPages(again) ? again : null;
  } catch {
    return null;
  }
}
