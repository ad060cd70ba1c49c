import type { PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFName, PDFRawStream, PDFStream, decodePDFRawStream } from '@cantoo/pdf-lib';
import { stateDepth } from '../read/content/state-depth.js';
import { dictEntry, pageEntry } from '../read/document.js';

/** The resources of a page, from itself or its tree; undefined when they are damaged. */
export function resourcesOf(page: PDFPage): PDFDict | undefined {
  const dict = pageEntry(page, 'Resources');
  return dict instanceof PDFDict ? dict : undefined;
}

/** Bytes of a stream without its filters; null when they cannot be read. */
export function streamBytes(stream: PDFStream): Uint8Array | null {
  try {
    return stream instanceof PDFRawStream ? decodePDFRawStream(stream).decode() : stream.getContents();
  } catch {
    return null;
  }
}

/** The content streams of a page, in order. */
export function contentsOf(page: PDFPage): { object: PDFStream; raw: PDFRef | PDFStream }[] {
  const found = page.node.get(PDFName.of('Contents')) && page.node.lookup(PDFName.of('Contents'));
  if (found instanceof PDFStream) return [{ object: found, raw: page.node.get(PDFName.of('Contents')) as PDFRef | PDFStream }];
  if (!(found instanceof PDFArray)) return [];
  return found.asArray().flatMap((raw, index) => {
    const object = found.lookup(index);
    return object instanceof PDFStream ? [{ object, raw: raw as PDFRef | PDFStream }] : [];
  });
}

/**
 * Lets a page draw its overlay after its own content, in the page's own space, whatever graphics state that content leaves behind:
 * states that it opens and does not close are closed, and those that it closes without opening are opened first.
 * @param baked operators that are the same in every copy, drawn just before the overlay
 */
export function addOverlay(page: PDFPage, overlay: PDFRef, baked: string): void {
  const context = page.doc.context;
  const own = (resourcesOf(page) ?? PDFDict.withContext(context)).clone(context);
  const objects = (dictEntry(own, 'XObject') ?? PDFDict.withContext(context)).clone(context);
  objects.set(PDFName.of('MbO'), overlay);
  own.set(PDFName.of('XObject'), objects);
  page.node.set(PDFName.of('Resources'), own);
  const stream = (text: string): PDFRef =>
    context.register(
      PDFRawStream.of(
        PDFDict.withContext(context),
        Uint8Array.from(text, (char) => char.charCodeAt(0)),
      ),
    );
  const originals = contentsOf(page);
  const contents = PDFArray.withContext(context);
  const { opens, closes } = stateDepth(originals.map(({ object }) => streamBytes(object)));
  if (originals.length > 0) {
    contents.push(stream('q\n'.repeat(1 + opens)));
    for (const { raw } of originals) contents.push(raw);
    contents.push(stream(`\n${'Q '.repeat(1 + closes)}\n${baked}q /MbO Do Q\n`));
  } else contents.push(stream(`${baked}q /MbO Do Q\n`));
  page.node.set(PDFName.of('Contents'), contents);
}
