import { MailbagError } from '../errors/catalogue.js';
import type { Box, Phrase } from '../page/page-reading.js';
import { inReadingOrder } from '../page/reading-order.js';
import { mainDirection, readPage, uprightBox } from '../page/page-reading.js';
import { pageMarks } from '../pdf/read/content/page-marks.js';
import { isOverBudget } from '../pdf/read/decode-budget.js';
import { openPdf, whole } from '../pdf/read/document.js';
import { nameFields } from '../pdf/read/field-labels.js';
import { describePdf } from '../pdf/read/inspect.js';
import type { Field, TemplateDescription } from '../pdf/field.js';

/** A page of an edition: what is printed on it, and which way up it is read. */
export interface EditionPage {
  phrases: Phrase[];
  direction: 0 | 90 | 180 | 270;
}

/** One edition of a form, as it is compared with another one. */
export interface Edition {
  description: TemplateDescription;
  pages: EditionPage[];
}

/**
 * Reads an edition of a form.
 * @throws MailbagError as inspectTemplate
 */
export async function readEdition(bytes: Uint8Array, file = 'The file', password = ''): Promise<Edition> {
  return whole(file, async () => {
    const opened = await openPdf(bytes, file, password);
    const description = describePdf(opened, file, nameFields);
    const pages = opened.doc.getPages().map((page): EditionPage => {
      const marks = pageMarks(page);
      const direction = mainDirection(marks);
      return { phrases: readPage(marks, direction).phrases, direction };
    });
    if (isOverBudget()) throw new MailbagError('pdf-holds-too-much', { file });
    return { description, pages };
  });
}

/** A field that can be asked or filled, where it first stands. */
export interface EditionField {
  field: Field;
  /** 0-based; -1: nowhere. */
  page: number;
  box: Box;
  /** Its place in the order in which the form is read. */
  order: number;
}

/** Fields of an edition, buttons left out, in the order in which the form is read. */
export function editionFields({ description, pages }: Edition): EditionField[] {
  const found = description.fields
    .filter(({ kind }) => kind !== 'button')
    .map((field): EditionField => {
      const widget = field.widgets.find(({ page }) => page > 0);
      const page = (widget?.page ?? 0) - 1;
      return { field, page, box: widget ? uprightBox(widget.rect, pages[page]?.direction ?? 0) : [0, 0, 0, 0], order: 0 };
    })
    .sort((a, b) => a.page - b.page || inReadingOrder(a.box, b.box));
  for (const [order, one] of found.entries()) one.order = order;
  return found;
}
