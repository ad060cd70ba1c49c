import type { PDFDocument } from '@cantoo/pdf-lib';
import { fieldWords } from '../../page/field-words.js';
import type { PageMarks } from '../../page/page-marks.js';
import type { Direction } from '../../page/page-reading.js';
import { mainDirection, readPage, uprightBox } from '../../page/page-reading.js';
import type { Place, PrintedLabel } from '../../page/printed-label.js';
import { PageLabels } from '../../page/printed-label.js';
import type { Field, FieldWidget } from '../field.js';
import { isButtonWithStates } from '../field.js';
import { pageMarks } from './content/page-marks.js';

type Labelled = { labels: PageLabels; place: Place };

/** A page as its fields are labelled by. */
interface LabelledPage {
  marks: PageMarks;
  main: Direction;
  /** By the direction in which they are read. */
  readings: Map<Direction, { labels: PageLabels; places: Map<FieldWidget, Place> }>;
}

const hasArea = ({ page, rect: [left, bottom, right, top] }: FieldWidget): boolean => page > 0 && right > left && top > bottom;

/** The words that are printed for the fields of a form. Each page is read when it is first asked for. */
class PrintedWords {
  private readonly pages: ReturnType<PDFDocument['getPages']>;
  private readonly widgets = new Map<number, { widget: FieldWidget; field: Field }[]>();
  private readonly known = new Map<number, LabelledPage>();

  constructor(doc: PDFDocument, fields: readonly Field[]) {
    this.pages = doc.getPages();
    for (const field of fields)
      for (const widget of field.widgets.filter(hasArea)) {
        const here = this.widgets.get(widget.page);
        if (here) here.push({ widget, field });
        else this.widgets.set(widget.page, [{ widget, field }]);
      }
  }

  private page(number: number): LabelledPage | null {
    const page = this.pages[number - 1];
    if (!page) return null;
    let here = this.known.get(number);
    if (!here) {
      const marks = pageMarks(page);
      this.known.set(number, (here = { marks, main: mainDirection(marks), readings: new Map() }));
    }
    return here;
  }

  private labelled(widget: FieldWidget): Labelled | null {
    const here = this.page(widget.page);
    if (!here) return null;
    const direction = (widget.rotation || here.main) as Direction;
    let reading = here.readings.get(direction);
    if (!reading) {
      const places = new Map(
        this.widgets
          .get(widget.page)!
          .map(({ widget: one, field }) => [one, { box: uprightBox(one.rect, direction), isTick: isButtonWithStates(field) }] as const),
      );
      // What is not seen stands in nobody's way.
      const seen = [...places].filter(([{ hidden }]) => !hidden).map(([, place]) => place);
      here.readings.set(direction, (reading = { labels: new PageLabels(readPage(here.marks, direction), seen), places }));
    }
    return { labels: reading.labels, place: reading.places.get(widget)! };
  }

  /** What is printed for a field at its first place, and the heading that it stands under. */
  of(field: Field): { printed: PrintedLabel | null; section: string | null } {
    const first = field.widgets.find(hasArea);
    const found = first ? this.labelled(first) : null;
    if (!found) return { printed: null, section: null };
    const { labels, place } = found;
    const group = (): Place[] => field.widgets.filter(hasArea).flatMap((widget) => this.labelled(widget)?.place ?? []);
    return { printed: field.kind === 'radio' ? labels.ofGroup(group()) : labels.of(place), section: labels.sectionOf(place) };
  }

  /** What is printed at a single button. */
  at(widget: FieldWidget): string | null {
    const found = hasArea(widget) ? this.labelled(widget) : null;
    return found ? (found.labels.of(found.place)?.text ?? null) : null;
  }
}

/** Radio buttons whose options say no more than their values get the words that are printed at them. */
function addOptionWords(fields: readonly Field[], words: PrintedWords): void {
  for (const field of fields) {
    if (field.kind !== 'radio' || field.options.some(({ value, label }) => label !== value)) continue;
    const options = field.onValues.map((value) => {
      const widget = field.widgets.find(({ onValue }) => onValue === value);
      // The words before the first button may name all of them: “Rhythm: yearly”.
      return { value, label: (widget && words.at(widget))?.replace(/^.*:\s+(?=\S)/, '') ?? null };
    });
    const labels = new Set(options.map(({ label }) => label));
    if (!labels.has(null) && labels.size === options.length) field.options = options as Field['options'];
  }
}

/** Gives radio buttons the words of their options, by which values may name them. */
export function nameOptions(doc: PDFDocument, fields: readonly Field[]): void {
  if (fields.some(({ kind }) => kind === 'radio')) addOptionWords(fields, new PrintedWords(doc, fields));
}

/** Gives fields the words that a person would call them by, with the heading that they stand under, and radio buttons those of their options. */
export function nameFields(doc: PDFDocument, fields: readonly Field[]): void {
  const words = new PrintedWords(doc, fields);
  for (const field of fields) {
    const { printed, section } = words.of(field);
    Object.assign(field, fieldWords(field.name, field.tooltip, printed), { section });
  }
  addOptionWords(fields, words);
}
