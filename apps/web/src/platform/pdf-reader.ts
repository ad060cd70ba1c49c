import * as pdfjs from 'pdfjs-dist';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
const worker = new pdfjs.PDFWorker();
/** Standard fonts of pdf.js, shipped with the application. */
const fontFiles = import.meta.glob('/../../node_modules/pdfjs-dist/standard_fonts/*.{pfb,ttf}', {
  query: '?url',
  import: 'default',
  eager: true,
}) as Record<string, string>;
const fontUrls = new Map(Object.entries(fontFiles).map(([path, url]) => [path.split('/').at(-1)!, url]));

class StandardFonts {
  async fetch({ filename }: { filename: string }): Promise<Uint8Array> {
    const url = fontUrls.get(filename);
    if (!url) throw new Error(`no font ${filename}`);
    return new Uint8Array(await (await fetch(url)).arrayBuffer());
  }
}

/** Opens a PDF for drawing. The bytes are copied, since pdf.js takes what it is given. */
export function openForDrawing(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  return pdfjs.getDocument({
    data: bytes.slice(),
    worker,
    isEvalSupported: false,
    enableXfa: false,
    StandardFontDataFactory: StandardFonts,
    useWorkerFetch: false,
    standardFontDataUrl: '/',
  } as never).promise;
}

/** A page drawn aside, so that what is shown stays until it is whole. @param number 1-based @param width in pixels */
export async function drawnPage(pdf: PDFDocumentProxy, number: number, width: number): Promise<HTMLCanvasElement> {
  const page = await pdf.getPage(number);
  const viewport = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
  const canvas = document.createElement('canvas');
  canvas.width = viewport.width;
  canvas.height = viewport.height;
  await page.render({ canvas, viewport }).promise;
  return canvas;
}

/** The first page of a file as a small picture, as the address of an image. @param width in pixels */
export async function thumbnailOf(bytes: Uint8Array, width: number): Promise<string> {
  let first = '';
  await thumbnailsOf(bytes, [1], width, (picture) => {
    first = picture;
    return true;
  });
  return first;
}

/**
 * Pages of one file as small pictures, one after the other, as addresses of images.
 * @param pages 1-based
 * @param width in pixels
 * @param onPicture says whether the others are still wanted
 */
export async function thumbnailsOf(
  bytes: Uint8Array,
  pages: readonly number[],
  width: number,
  onPicture: (picture: string, at: number) => boolean,
): Promise<void> {
  const pdf = await openForDrawing(bytes);
  try {
    for (const [at, page] of pages.entries()) if (!onPicture((await drawnPage(pdf, page, width)).toDataURL('image/png'), at)) return;
  } finally {
    await pdf.destroy();
  }
}

/** Shows what was drawn aside. */
export function showDrawn(drawn: HTMLCanvasElement, canvas: HTMLCanvasElement): void {
  canvas.width = drawn.width;
  canvas.height = drawn.height;
  canvas.getContext('2d')?.drawImage(drawn, 0, 0);
}
export type { PDFDocumentProxy };
