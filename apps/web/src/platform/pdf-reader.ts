import { t } from '@mailbag/core/words';
import * as pdfjs from 'pdfjs-dist';
import type { PDFDocumentProxy, PDFPageProxy, RenderTask } from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
const worker = new pdfjs.PDFWorker();
/** What pdf.js asks for by name while it draws. @see BinaryDataFactory in its API */
class ShippedFiles {
  async fetch({ filename }: { filename: string }): Promise<Uint8Array> {
    const { shippedAs } = await import('./shipped-files');
    const address = shippedAs.get(filename);
    if (address === undefined) throw new Error(`no file ${filename}`);
    return new Uint8Array(await (await fetch(address)).arrayBuffer());
  }
}

let aside: Document | null = null;

/**
 * A document that nobody sees, in which pages are drawn. Each face of a PDF is added to the document that it is drawn in, and all of that is
 * laid out anew then: the screen would be for each letter that is typed.
 */
function drawingDocument(): Document {
  if (aside) return aside;
  const frame = document.createElement('iframe');
  frame.hidden = true;
  frame.title = t`Pages are drawn here`;
  document.body.append(frame);
  return (aside = frame.contentDocument ?? document);
}

/** A canvas in which a page is drawn before it is shown. */
export const canvasAside = (): HTMLCanvasElement => drawingDocument().createElement('canvas');

/** Opens a PDF for drawing. The bytes are copied, since pdf.js takes what it is given. */
export function openForDrawing(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  return pdfjs.getDocument({
    data: bytes.slice(),
    worker,
    isEvalSupported: false,
    enableXfa: false,
    ownerDocument: drawingDocument(),
    BinaryDataFactory: ShippedFiles,
    useWorkerFetch: false,
    standardFontDataUrl: '/',
    cMapUrl: '/',
    cMapPacked: true,
    wasmUrl: '/',
  } as never).promise;
}

/** Milliseconds for which drawing may keep the window from anything else. */
const LONGEST_STRETCH = 40;

/**
 * Begins to draw a page. By itself pdf.js draws one stretch for each picture of the screen, which is slow for what is drawn aside, and never where nobody
 * looks at the window: here one stretch follows the other, and after a while whatever else waits goes first.
 */
export function startDrawing(page: PDFPageProxy, parameters: Parameters<PDFPageProxy['render']>[0]): RenderTask {
  const task = page.render(parameters);
  // Not in its API: where another version has no such thing, it draws as it always did.
  Object.assign((task as unknown as { _internalRenderTask?: object })._internalRenderTask ?? {}, { _useRequestAnimationFrame: false });
  let since = performance.now();
  task.onContinue = (goOn: () => void) => {
    if (performance.now() - since < LONGEST_STRETCH) return goOn();
    setTimeout(() => {
      since = performance.now();
      goOn();
    });
  };
  return task;
}

/** A page drawn aside, so that what is shown stays until it is whole. @param number 1-based @param width in pixels */
export async function drawnPage(pdf: PDFDocumentProxy, number: number, width: number): Promise<HTMLCanvasElement> {
  const page = await pdf.getPage(number);
  const viewport = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
  const canvas = canvasAside();
  canvas.width = viewport.width;
  canvas.height = viewport.height;
  await startDrawing(page, { canvas, viewport }).promise;
  return canvas;
}

/** The first page of a file as a small picture, as the address of an image. @param width in pixels */
export async function thumbnailOf(bytes: Uint8Array, width: number): Promise<string> {
  const pdf = await openForDrawing(bytes);
  try {
    return (await drawnPage(pdf, 1, width)).toDataURL('image/png');
  } finally {
    await pdf.destroy();
  }
}

/** The first page of a file as a small picture for elsewhere, as a data URL of a JPEG. @param width in pixels */
export async function jpegOf(bytes: Uint8Array, width: number): Promise<string> {
  const pdf = await openForDrawing(bytes);
  try {
    return (await drawnPage(pdf, 1, width)).toDataURL('image/jpeg', 0.8);
  } finally {
    await pdf.destroy();
  }
}

/** Written as PNG beside the thread of the screen. @returns an address that is to be revoked */
const pictureOf = (canvas: HTMLCanvasElement): Promise<string> =>
  new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(URL.createObjectURL(blob)) : reject(new Error(t`The page could not be kept as a picture.`))));
  });

/** Pages that are drawn at the same time: while one waits for the screen, the worker reads the next. */
const ABREAST = 3;

/**
 * Pages of one file as small pictures, as addresses of images, in the order in which they are drawn. Whoever gets them revokes them.
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
  const wanted = pages.entries();
  let isWanted = true;
  const draw = async (): Promise<void> => {
    for (const [at, page] of wanted) {
      if (!isWanted) return;
      const picture = await pictureOf(await drawnPage(pdf, page, width));
      isWanted = onPicture(picture, at) && isWanted;
    }
  };
  try {
    await Promise.all(Array.from({ length: ABREAST }, draw));
  } finally {
    await pdf.destroy();
  }
}

/** Shows what was drawn aside, one over the other. */
export function showDrawn(drawn: readonly HTMLCanvasElement[], canvas: HTMLCanvasElement): void {
  const { width, height } = drawn[0]!;
  // Its size is said only where it is another one: saying it lays the page out anew.
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  const ink = canvas.getContext('2d');
  ink?.clearRect(0, 0, width, height);
  for (const one of drawn) ink?.drawImage(one, 0, 0);
}
export type { PDFDocumentProxy };
