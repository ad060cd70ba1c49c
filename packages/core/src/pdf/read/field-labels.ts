import type { PDFDocument } from '@cantoo/pdf-lib';
import type { Answer } from '../../answers/answer.js';
import type { PlacedField, PrintedForm } from '../../answers/printed-form.js';
import { proposeAnswers } from '../../answers/propose-answers.js';
import type { LabelSource } from '../../page/field-words.js';
import { fieldWords } from '../../page/field-words.js';
import { nameStem } from '../../page/label-words.js';
import type { PageMarks } from '../../page/page-marks.js';
import type { Box, Direction, Phrase } from '../../page/page-reading.js';
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
class PrintedWords implements PrintedForm {
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
      // What is not seen, and buttons that are drawn over words, stand in nobody's way.
      const inTheWay = new Set(
        this.widgets.get(widget.page)!.flatMap(({ widget: one, field }) => (one.hidden || field.kind === 'button' ? [] : [one])),
      );
      const seen = [...places].filter(([one]) => inTheWay.has(one)).map(([, place]) => place);
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

  placeOf(field: Field): PlacedField | null {
    const first = field.widgets.find((widget) => hasArea(widget) && !widget.hidden);
    const found = first ? this.labelled(first) : null;
    return found ? { field, page: first!.page, box: found.place.box } : null;
  }
  private reading({ field, page }: PlacedField): { labels: PageLabels; place: Place } {
    return this.labelled(field.widgets.find((widget) => widget.page === page && hasArea(widget))!)!;
  }
  between(left: PlacedField, right: PlacedField): string | null {
    const [low, high] = [Math.max(left.box[1], right.box[1]) - 3, Math.min(left.box[3], right.box[3]) + 1];
    const here = this.reading(left)
      .labels.phrasesIn([left.box[2] - 2, low, right.box[0] + 2, high])
      .filter(({ base, size }) => base > low - 1 && base + size * 0.4 < high + 2);
    return here.length > 0 ? here.map(({ text }) => (/^[\s/.\-–]+$/.test(text) ? text.trim()[0]! : text)).join(' ') : null;
  }
  phrasesIn(page: number, box: Box): readonly Phrase[] {
    const widget = this.widgets.get(page)?.[0]?.widget;
    return widget ? this.labelled(widget)!.labels.phrasesIn(box) : [];
  }
  isContinued(place: PlacedField): boolean {
    const { labels, place: own } = this.reading(place);
    return !labels.hasOwnWords(own);
  }
  ofGroup(places: readonly PlacedField[]): string | null {
    const own = places.map((place) => this.reading(place));
    return own[0]!.labels.ofGroup(own.map(({ place }) => place))?.text ?? null;
  }

  /** Whether most words of a page, 1-based, are drawn in fonts that do not tell their letters. */
  isUnread(page: number): boolean {
    const { pieces = [], unread = 0 } = this.known.get(page)?.marks ?? {};
    return unread > pieces.length;
  }

  /** What is printed at a single button. */
  at(widget: FieldWidget): string | null {
    const found = hasArea(widget) ? this.labelled(widget) : null;
    return found ? (found.labels.of(found.place)?.text ?? null) : null;
  }
}

/** Whether a form is on paper of the United States (Letter or Legal), where the month comes before the day; common practice, no source. */
function isMonthFirst(doc: PDFDocument): boolean {
  const { width = 0, height = 0 } = doc.getPages()[0]?.getSize() ?? {};
  const is = (a: number, b: number): boolean => Math.abs(a - b) < 4;
  return is(width, 612) && (is(height, 792) || is(height, 1008));
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
export function nameOptions(doc: PDFDocument, fields: readonly Field[]): null {
  if (fields.some(({ kind }) => kind === 'radio')) addOptionWords(fields, new PrintedWords(doc, fields));
  return null;
}

/** A box that only goes on with an answer is called as the answer is. */
function callPieces(fields: readonly Field[], answers: readonly Answer[]): void {
  const byName = new Map(fields.map((field) => [field.name, field]));
  for (const { label, parts } of answers)
    for (const { field: name, piece } of parts) {
      const field = byName.get(name)!;
      if (label !== null && piece !== null && (field.label === null || field.labelFrom === 'name'))
        Object.assign(field, { label, labelFrom: 'print' satisfies LabelSource });
    }
}

/**
 * Words above several fields that have names of their own, as a title stands above the first of a column: they are the heading of all, and the name of none.
 * Fields whose names tell nothing, or the same but for a number, are called by them as cells are by the head of their column.
 * @returns pages and words, with a space between them
 */
function headingsOfSeveral(found: readonly { field: Field; printed: PrintedLabel | null }[]): Set<string> {
  const below = new Map<string, Set<string | null>>();
  const times = new Map<string, number>();
  for (const { field, printed } of found) {
    if (printed?.relation !== 'above') continue;
    const key = `${field.page} ${printed.text}`;
    const own = nameStem(field.name);
    below.set(key, (below.get(key) ?? new Set()).add(own));
    times.set(key, (times.get(key) ?? 0) + 1);
  }
  return new Set([...below].flatMap(([key, names]) => (names.size > 1 && names.size === times.get(key) && !names.has(null) ? [key] : [])));
}

/**
 * Gives fields the words that a person would call them by, with the heading that they stand under, and radio buttons those of their options.
 * @returns which of them are one answer, and those on pages whose words could not be read
 */
export function nameFields(doc: PDFDocument, fields: readonly Field[]): { answers: Answer[]; unread: string[] } {
  const words = new PrintedWords(doc, fields);
  const found = fields.map((field) => ({ field, ...words.of(field) }));
  const ofAll = headingsOfSeveral(found);
  for (const { field, printed, section } of found) {
    // What stands beside a push button is about something else.
    const isForeign = printed && (ofAll.has(`${field.page} ${printed.text}`) || (field.kind === 'button' && printed.relation !== 'inside'));
    const own = isForeign ? null : printed;
    Object.assign(field, fieldWords(field.name, field.tooltip, own), { section });
  }
  addOptionWords(fields, words);
  const answers = proposeAnswers(fields, words, isMonthFirst(doc));
  callPieces(fields, answers);
  const unread = fields.filter(({ page, labelFrom }) => labelFrom !== 'print' && words.isUnread(page)).map(({ name }) => name);
  return { answers, unread };
}
