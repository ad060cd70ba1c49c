import { areaOf, shared } from '../page/geometry.js';
import { MailbagError } from '../errors/catalogue.js';
import type { Box } from '../page/page-reading.js';
import { pageMarks } from '../pdf/read/content/page-marks.js';
import { isOverBudget } from '../pdf/read/decode-budget.js';
import { openPdf, whole } from '../pdf/read/document.js';
import { describeField, visibleBox } from '../pdf/read/inspect.js';
import { readFieldTree } from '../pdf/read/field-tree.js';
import type { Blank } from './blank.js';
import { findBlanks, isScan } from './find-blanks.js';

/** The blanks of a file, and the pages that are only pictures, 1-based, on which none can be told. */
export interface BlankReading {
  blanks: Blank[];
  scans: number[];
}

/**
 * Finds the blanks of a PDF that have no field yet, page by page.
 * @throws MailbagError pdf-not-a-pdf, pdf-damaged, pdf-password, pdf-holds-too-much
 */
export async function readBlanks(bytes: Uint8Array, file = 'The file', password = ''): Promise<BlankReading> {
  return whole(file, async () => {
    const { doc } = await openPdf(bytes, file, password);
    const fields = readFieldTree(doc, file).fields.flatMap((raw) => describeField(raw)?.widgets ?? []);
    const reading: BlankReading = { blanks: [], scans: [] };
    for (const [index, page] of doc.getPages().entries()) {
      const marks = pageMarks(page);
      const { width, height, left, bottom } = visibleBox(page);
      if (isScan(marks, width * height)) {
        reading.scans.push(index + 1);
        continue;
      }
      const seen: Box = [left, bottom, left + width, bottom + height];
      const taken = fields.filter((widget) => widget.page === index + 1).map(({ rect }): Box => rect);
      const isFree = ({ rect }: Blank): boolean =>
        shared(rect, seen) > areaOf(rect) * 0.5 && !taken.some((box) => shared(box, rect) > Math.min(areaOf(box), areaOf(rect)) * 0.4);
      reading.blanks.push(...findBlanks(marks, index + 1).filter(isFree));
    }
    if (isOverBudget()) throw new MailbagError('pdf-holds-too-much', { file });
    return reading;
  });
}
