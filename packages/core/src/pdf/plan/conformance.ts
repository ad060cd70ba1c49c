import type { PDFDocument } from '@cantoo/pdf-lib';
import { PDFName, PDFRawStream, PDFRef } from '@cantoo/pdf-lib';
import { dictEntry, entry, latin1, rawEntry } from '../read/document.js';
import { streamBytes } from './overlay.js';

/** What the metadata of a file says of PDF/A (ISO 19005-1, 6.7.11): properties as elements or as attributes. */
const CLAIM =
  /<pdfaid:(part|conformance|amd|corr|rev)>[^<]{0,40}<\/pdfaid:\1>|\spdfaid:(?:part|conformance|amd|corr|rev)=(?:"[^"]{0,40}"|'[^']{0,40}')/g;

/** Takes the claim to be PDF/A out of the metadata: values may be drawn with fonts that viewers have by themselves, which PDF/A does not allow. */
export function dropConformance(doc: PDFDocument): void {
  const metadata = entry(doc.catalog, 'Metadata');
  if (!(metadata instanceof PDFRawStream)) return;
  const bytes = streamBytes(metadata);
  const text = bytes ? latin1(bytes) : '';
  if (!text.includes('pdfaid:')) return;
  const dict = metadata.dict.clone(doc.context);
  for (const key of ['Filter', 'DecodeParms']) dict.delete(PDFName.of(key));
  const changed = PDFRawStream.of(
    dict,
    Uint8Array.from(text.replace(CLAIM, ''), (char) => char.charCodeAt(0)),
  );
  const ref = rawEntry(doc.catalog, 'Metadata');
  doc.catalog.set(PDFName.of('Metadata'), doc.context.register(changed));
  if (ref instanceof PDFRef) doc.context.delete(ref);
}

/** Whether a document is tagged (ISO 32000-2, 14.7.1). */
export const isTagged = (doc: PDFDocument): boolean => dictEntry(doc.catalog, 'StructTreeRoot') !== undefined;
