import { PDFDocument } from '@cantoo/pdf-lib';
import type { FaceFile, FontEngine } from '../../platform/ports.js';
import type { Field, TemplateDescription } from '../field.js';
import { fieldLabel } from '../field.js';
import { fillCopy } from '../fill/fill.js';
import { compileTemplate } from '../plan/compile.js';
import { inspectTemplate } from '../read/inspect.js';
import type { FieldValues } from '../value.js';
import type { DrawnField } from './drawn-field.js';
import { drawnField } from './drawn-field.js';
import { writeFields } from './write-fields.js';

/** A box that is narrower shows its number in place of its name, points. */
const NARROW = 44;
/** Points of type of names in boxes; no mark is lower than this needs. */
const SIZE = 7;
/** A4, points; the index's margins and rows. */
const [WIDTH, HEIGHT, MARGIN, ROW] = [595, 842, 42, 13];
const ROWS = Math.floor((HEIGHT - 2 * MARGIN - 40) / ROW);
/** Columns of the index: where each begins, and how wide it is. */
const COLUMNS: [from: number, width: number][] = [
  [MARGIN, 26],
  [MARGIN + 30, 220],
  [MARGIN + 254, 170],
  [MARGIN + 428, 60],
  [MARGIN + 492, 24],
];

/** The end of a name tells it from others. */
const nameEnd = (name: string): string => (name.length > 24 && name.includes('.') ? `…${name.split('.').at(-1)!}` : name);

interface Marks {
  fields: DrawnField[];
  values: Record<string, string>;
}

function marksOf(fields: readonly Field[]): Marks {
  const marks: Marks = { fields: [], values: {} };
  for (const [index, { name, widgets }] of fields.entries())
    for (const [at, { page, rect, hidden, onValue }] of widgets.entries()) {
      if (page < 1 || hidden) continue;
      const [left, bottom, right, top] = rect;
      const isNarrow = right - left < NARROW;
      const mark = `m${index}_${at}`;
      const middle = (bottom + top) / 2;
      const high = Math.max(Math.min(top - bottom, 14), SIZE + 3);
      // A tick's own box is too small for anything; its number begins there.
      const wide = Math.max(right - left, 14);
      marks.values[mark] = isNarrow ? String(index + 1) : `${nameEnd(name)}${onValue === null ? '' : ` = ${onValue}`}`;
      marks.fields.push(
        drawnField({
          name: mark,
          kind: 'text',
          page,
          rect: [left, middle - high / 2, left + wide, middle + high / 2],
          size: 0,
          colour: [0.42, 0.17, 0.31],
          border: true,
        }),
      );
    }
  return marks;
}

/** Rows of the index on its pages, which follow those of the form. */
function indexOf(fields: readonly Field[], pages: number, kindOf: (field: Field) => string): Marks {
  const marks: Marks = { fields: [], values: {} };
  const write = (row: number, page: number, texts: readonly string[], size: number): void =>
    texts.forEach((text, column) => {
      const [from, width] = COLUMNS[column]!;
      const top = HEIGHT - MARGIN - 26 - row * ROW;
      const name = `i${page}_${row}_${column}`;
      marks.values[name] = text;
      marks.fields.push(drawnField({ name, kind: 'text', page, rect: [from, top - ROW, from + width, top], size }));
    });
  for (let first = 0; first < fields.length; first += ROWS) {
    const page = pages + 1 + first / ROWS;
    write(0, page, ['No.', 'Name', 'Called', 'Kind', 'Page'], 8);
    fields
      .slice(first, first + ROWS)
      .forEach((field, index) =>
        write(
          index + 1,
          page,
          [String(first + index + 1), field.name, fieldLabel(field), kindOf(field), field.page === 0 ? '–' : String(field.page)],
          0,
        ),
      );
  }
  return marks;
}

/** The file with its form drawn into the pages as it is, and with pages behind them for the index. */
async function ground(pdf: Uint8Array, file: string, index: number, fonts: FontEngine, faces: readonly FaceFile[]): Promise<Uint8Array> {
  const flat = fillCopy(await compileTemplate(pdf, { fonts, faces, file }), {}).bytes;
  const doc = await PDFDocument.load(flat);
  for (let page = 0; page < index; page++) {
    const sheet = doc.addPage([WIDTH, HEIGHT]);
    sheet.drawText('Fields of this form', { x: MARGIN, y: HEIGHT - MARGIN - 6, size: 14 });
    sheet.drawText('A box that is too narrow for its name shows its number.', { x: MARGIN, y: HEIGHT - MARGIN - 20, size: 8 });
  }
  return doc.save({ useObjectStreams: false });
}

/**
 * The form with the name of every field printed in its box, or its number where the box is too narrow, and an index of all of them behind it.
 * @param kindOf the kind of a field in words
 * @throws MailbagError pdf-*
 */
export async function markedPdf(
  pdf: Uint8Array,
  { pages, fields }: Pick<TemplateDescription, 'pages' | 'fields'>,
  {
    fonts,
    faces,
    file = 'The file',
    kindOf,
  }: { fonts: FontEngine; faces: readonly FaceFile[]; file?: string; kindOf: (field: Field) => string },
): Promise<Uint8Array> {
  const seen = marksOf(fields);
  const index = indexOf(fields, pages.length, kindOf);
  const values: FieldValues = { ...seen.values, ...index.values };
  const bytes = await writeFields(
    await ground(pdf, file, Math.ceil(fields.length / ROWS), fonts, faces),
    [...seen.fields, ...index.fields],
    file,
  );
  const { fields: written } = await inspectTemplate(bytes, file);
  const given = written.map(({ name }) => name);
  const compiled = await compileTemplate(bytes, { fonts, faces, file, given, characters: Object.values(values) as string[] });
  return fillCopy(compiled, values).bytes;
}
