import type { Box } from '../page/page-reading.js';
import { fieldsOfBlanks } from '../blanks/fields-of-blanks.js';
import { readBlanks } from '../blanks/read-blanks.js';
import { pageMarks } from '../pdf/read/content/page-marks.js';
import { openPdf, whole } from '../pdf/read/document.js';
import type { DrawnField } from '../pdf/write/drawn-field.js';

/** What a page has that fields are laid along, in its own space, points: boxes without width or height are lines. */
export interface PageGuides {
  lines: Box[];
  /** Where its words stand. */
  baselines: Box[];
  /** It is only a picture, on which no blanks are found. */
  isScan: boolean;
}

/** What helps whoever draws fields on a file. */
export interface LayoutAids {
  /** One a page. */
  pages: PageGuides[];
  /** Blanks that were found, as fields that could be taken. */
  blanks: DrawnField[];
}

/** Lines of one page that are told: a drawing can have any number. */
const MOST_LINES = 3000;

/** Reads what helps to draw fields on a PDF. @throws MailbagError as `readBlanks` */
export async function readLayoutAids(bytes: Uint8Array, file = 'The file'): Promise<LayoutAids> {
  const { blanks, scans } = await readBlanks(bytes, file);
  const pages = await whole(file, async () => {
    const { doc } = await openPdf(bytes, file);
    return doc.getPages().map((page, index): PageGuides => {
      const { segments, shapes, pieces } = pageMarks(page);
      const lines = [
        ...segments.map(({ x1, y1, x2, y2 }): Box => [Math.min(x1, x2), Math.min(y1, y2), Math.max(x1, x2), Math.max(y1, y2)]),
        ...shapes.map(({ box }): Box => box),
      ];
      return {
        lines: lines.slice(0, MOST_LINES),
        baselines: pieces
          .filter(({ direction }) => direction === 0)
          .slice(0, MOST_LINES)
          .map(({ x, y, width }): Box => [x, y, x + width, y]),
        isScan: scans.includes(index + 1),
      };
    });
  });
  return { pages, blanks: fieldsOfBlanks(blanks) };
}
