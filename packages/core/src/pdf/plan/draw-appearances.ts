import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFName, PDFRawStream, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import { num } from '../fill/appearance/number.js';
import { arrayEntry, dictEntry, entry, nameEntry, numberEntry, numbersOf, rawEntry } from '../read/document.js';
import { addOverlay } from './overlay.js';

/** Annotation flags (ISO 32000-2, table 167): hidden; not shown on a screen, which says nothing of paper. */
const HIDDEN = 2;

/** The stream that shows a widget as it is: of its state where it has several (ISO 32000-2, 12.5.5). */
function appearanceOf(widget: PDFDict): PDFRef | PDFStream | null {
  const appearances = dictEntry(widget, 'AP');
  const normal = appearances && entry(appearances, 'N');
  if (normal instanceof PDFStream) return rawOf(appearances!, 'N');
  if (!(normal instanceof PDFDict)) return null;
  const state = nameEntry(widget, 'AS') ?? 'Off';
  return entry(normal, state) instanceof PDFStream ? rawOf(normal, state) : null;
}
const rawOf = (dict: PDFDict, key: string): PDFRef | PDFStream | null => {
  const raw = rawEntry(dict, key);
  return raw instanceof PDFRef || raw instanceof PDFStream ? raw : null;
};

/** The matrix that fits an appearance into its rectangle: algorithm of ISO 32000-2, 12.5.5. Null: it has no extent. */
function placing(rect: readonly number[], box: readonly number[], matrix: readonly number[]): number[] | null {
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = matrix;
  const corners = [
    [box[0]!, box[1]!],
    [box[2]!, box[1]!],
    [box[0]!, box[3]!],
    [box[2]!, box[3]!],
  ].map(([x, y]) => [a * x! + c * y! + e, b * x! + d * y! + f] as const);
  const [left, right] = [Math.min(...corners.map(([x]) => x)), Math.max(...corners.map(([x]) => x))];
  const [bottom, top] = [Math.min(...corners.map(([, y]) => y)), Math.max(...corners.map(([, y]) => y))];
  if (right - left <= 0 || top - bottom <= 0) return null;
  const [x0, x1] = [Math.min(rect[0]!, rect[2]!), Math.max(rect[0]!, rect[2]!)];
  const [y0, y1] = [Math.min(rect[1]!, rect[3]!), Math.max(rect[1]!, rect[3]!)];
  const [wide, high] = [(x1 - x0) / (right - left), (y1 - y0) / (top - bottom)];
  return [wide, 0, 0, high, x0 - left * wide, y0 - bottom * high];
}

/** Draws the widgets of a page into it as they look, and takes them off. */
export function drawAppearances(page: PDFPage): void {
  const annotations = arrayEntry(page.node, 'Annots');
  if (!annotations) return;
  const { context } = page.doc;
  const kept = PDFArray.withContext(context);
  const objects = PDFDict.withContext(context);
  let content = '';
  for (let index = 0; index < annotations.size(); index++) {
    const widget = annotations.lookup(index);
    if (!(widget instanceof PDFDict)) continue;
    if (nameEntry(widget, 'Subtype') !== 'Widget') {
      kept.push(annotations.get(index));
      continue;
    }
    const shown = ((numberEntry(widget, 'F') ?? 0) & HIDDEN) === 0 ? appearanceOf(widget) : null;
    const stream = shown instanceof PDFRef ? context.lookup(shown) : shown;
    if (!shown || !(stream instanceof PDFStream)) continue;
    const rect = numbersOf(arrayEntry(widget, 'Rect'));
    const box = numbersOf(arrayEntry(stream.dict, 'BBox'));
    const matrix = rect.length === 4 && box.length === 4 ? placing(rect, box, numbersOf(arrayEntry(stream.dict, 'Matrix'))) : null;
    if (!matrix) continue;
    const name = `MbW${index}`;
    objects.set(PDFName.of(name), shown);
    content += `q ${matrix.map(num).join(' ')} cm /${name} Do Q\n`;
  }
  if (kept.size() > 0) page.node.set(PDFName.of('Annots'), kept);
  else page.node.delete(PDFName.of('Annots'));
  if (content === '') return;
  const dict = PDFDict.withContext(context);
  dict.set(PDFName.of('Type'), PDFName.of('XObject'));
  dict.set(PDFName.of('Subtype'), PDFName.of('Form'));
  const { x, y, width, height } = page.getMediaBox();
  dict.set(PDFName.of('BBox'), context.obj([x, y, x + width, y + height]));
  const resources = PDFDict.withContext(context);
  resources.set(PDFName.of('XObject'), objects);
  dict.set(PDFName.of('Resources'), resources);
  const bytes = Uint8Array.from(content, (char) => char.charCodeAt(0));
  addOverlay(page, context.register(PDFRawStream.of(dict, bytes)), '');
}
