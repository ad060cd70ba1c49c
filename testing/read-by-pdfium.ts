/** The text of a file's first page as PDFium reads it, lines with a break between them. */
export async function readByPdfium(bytes: Uint8Array): Promise<string> {
  const { PDFiumLibrary } = await import('@hyzyla/pdfium');
  const library = await PDFiumLibrary.init();
  try {
    const document = await library.loadDocument(bytes);
    return document.getPage(0).getText();
  } finally {
    library.destroy();
  }
}
