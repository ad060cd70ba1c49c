import { pdfium } from './pdfium.js';

/** The text of a file's first page as PDFium reads it, lines with a break between them. */
export async function readByPdfium(bytes: Uint8Array): Promise<string> {
  const document = await (await pdfium()).loadDocument(bytes);
  try {
    return document.getPage(0).getText();
  } finally {
    document.destroy();
  }
}
