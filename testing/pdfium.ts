import type { PDFiumLibrary } from '@hyzyla/pdfium';

let library: Promise<PDFiumLibrary> | null = null;

/** PDFium, a reader and renderer that is not ours, begun once for all tests of a file: beginning takes longer than most pages. */
export const pdfium = (): Promise<PDFiumLibrary> => (library ??= import('@hyzyla/pdfium').then((module) => module.PDFiumLibrary.init()));
