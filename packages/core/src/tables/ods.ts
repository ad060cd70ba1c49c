import { MailbagError } from '../errors/catalogue.js';
import type { ZipParts } from '../platform/ports.js';
import { refuseLongCell } from './allowance.js';
import type { SheetFacts } from './gather.js';
import { writtenNumber } from './typed-text.js';
import type { Cell } from './record.js';
import { emptyCell } from './record.js';
import type { SheetBook, SheetRow } from './sheet-book.js';
import type { Attributes } from './xml-part.js';
import { Enough, attribute, parsePart, refuseBombs } from './xml-part.js';

/** Columns of a sheet, by its format, and merged ranges that are heeded. */
const MOST_COLUMNS = 16_384;
const MOST_MERGES = 10_000;

/** The typed value of a cell (OpenDocument 1.3, part 3, 19.387). `text` is what the person sees: the format keeps it as it is shown. */
function cellOf(attributes: Attributes, text: string): Cell {
  const type = attribute(attributes, 'value-type') ?? '';
  const value = attribute(attributes, 'value') ?? '';
  if (text === '' && type === '') return emptyCell;
  switch (type) {
    case 'float':
    case 'currency':
    case 'percentage': {
      // A truth value that has lost its type is shown in a word all the same.
      if ((value === '0' || value === '1') && /^\p{L}+$/u.test(text)) return { text, value: value === '1' };
      const number = writtenNumber(value) ?? (/e/i.test(value) ? Number(value) : null);
      return { text: text || value, value: number === null || Math.abs(number) >= 1e15 ? text || value : number };
    }
    case 'date': {
      const date = (attribute(attributes, 'date-value') ?? text).replace(/T00:00:00(\.0+)?$/, '');
      return { text: text || date.replace('T', ' '), value: date };
    }
    case 'time': {
      const clock = clockOf(attribute(attributes, 'time-value') ?? '');
      return { text: text || (clock ?? ''), value: clock ?? text };
    }
    case 'boolean': {
      const isTrue = attribute(attributes, 'boolean-value') === 'true';
      return { text: text || (isTrue ? 'TRUE' : 'FALSE'), value: isTrue };
    }
    default: {
      // Some writers give the text as an attribute only.
      const own = text || (attribute(attributes, 'string-value') ?? '');
      return own === '' ? emptyCell : { text: own, value: own };
    }
  }
}

/** A time of day from a duration (ISO 8601, as OpenDocument writes times: PT14H05M00S); null when it is none, or of more than a day. */
function clockOf(duration: string): string | null {
  const [, hours, minutes, seconds = '0'] = /^PT(\d+)H(\d+)M(?:(\d+)(?:[.,]\d+)?S)?$/.exec(duration) ?? [];
  if (hours === undefined || minutes === undefined || Number(hours) > 23) return null;
  const two = (part: string): string => part.padStart(2, '0').slice(-2);
  return `${two(hours)}:${two(minutes)}${Number(seconds) > 0 ? `:${two(seconds)}` : ''}`;
}

/**
 * Opens a spreadsheet in OpenDocument (OpenDocument 1.3, part 3, 9). Rows are streamed for each question: the format has all sheets in one part.
 * @throws MailbagError sheet-damaged, sheet-zip-bomb, sheet-password
 */
export async function openOds(zip: ZipParts, file: string): Promise<SheetBook> {
  refuseBombs(zip, file);
  let isEncrypted = false;
  if (zip.parts.some(({ name }) => name === 'META-INF/manifest.xml'))
    await parsePart(zip, file, 'META-INF/manifest.xml', {
      open(name) {
        if (name === 'encryption-data') isEncrypted = true;
      },
    });
  if (isEncrypted) throw new MailbagError('sheet-password', { file });
  const hiddenStyles = new Set<string>();
  const sheets: { name: string; hidden: boolean }[] = [];
  let style = '';
  await parsePart(zip, file, 'content.xml', {
    open(name, attributes) {
      if (name === 'style') style = attribute(attributes, 'name') ?? '';
      if (name === 'table-properties' && attribute(attributes, 'display') === 'false') hiddenStyles.add(style);
      if (name === 'table')
        sheets.push({ name: attribute(attributes, 'name') ?? '', hidden: hiddenStyles.has(attribute(attributes, 'style-name') ?? '') });
    },
  });
  const isScripted = zip.parts.some(({ name }) => /^Basic\/.+\.xml$/.test(name) && !/script-l[bc]\.xml$/.test(name));
  return {
    sheets,
    notes: isScripted ? [{ code: 'macros', count: 1, names: [] }] : [],
    rows: (name, onRow) => readRows(zip, file, name, onRow),
  };
}

async function readRows(zip: ZipParts, file: string, sheet: string, onRow: (row: SheetRow) => boolean): Promise<SheetFacts> {
  const hiddenColumns: number[] = [];
  const merges: SheetFacts['merges'][number][] = [];
  const isHidden = (attributes: Attributes): boolean => ['collapse', 'filter'].includes(attribute(attributes, 'visibility') ?? '');
  const repeats = (attributes: Attributes, name: string): number => Math.max(1, Number(attribute(attributes, name) ?? 1) || 1);
  let isHere = false;
  let depth = 0;
  let column = 0;
  let at = 0;
  let row: SheetRow = { row: 0, hidden: false, cells: [] };
  let rowRepeats = 1;
  let cell: Attributes | null = null;
  let paragraphs = 0;
  let text = '';
  let inParagraph = 0;
  let inNote = 0;
  const add = (piece: string): void => {
    text += piece;
    refuseLongCell(text, `${file}, sheet “${sheet}”`, row.row);
  };
  await parsePart(zip, file, 'content.xml', {
    open(name, attributes) {
      if (name === 'table') {
        depth++;
        if (depth === 1) isHere = attribute(attributes, 'name') === sheet;
      }
      if (!isHere || depth !== 1) return;
      switch (name) {
        case 'table-column': {
          const count = repeats(attributes, 'number-columns-repeated');
          if (isHidden(attributes))
            for (let index = column; index < Math.min(column + count, MOST_COLUMNS); index++) hiddenColumns.push(index);
          column += count;
          break;
        }
        case 'table-row':
          rowRepeats = repeats(attributes, 'number-rows-repeated');
          row = { row: row.row + 1, hidden: isHidden(attributes), cells: [] };
          at = 0;
          break;
        case 'table-cell':
        case 'covered-table-cell':
          cell = attributes;
          text = '';
          paragraphs = 0;
          break;
        case 'annotation':
          inNote++;
          break;
        case 'p':
          if (cell && inNote === 0) {
            inParagraph++;
            if (paragraphs++ > 0) text += '\n';
          }
          break;
        case 's':
          if (inParagraph > 0) add(' '.repeat(Math.min(1000, repeats(attributes, 'c'))));
          break;
        case 'tab':
          if (inParagraph > 0) text += '\t';
          break;
        case 'line-break':
          if (inParagraph > 0) text += '\n';
      }
    },
    text(piece) {
      if (inParagraph > 0) add(piece);
    },
    close(name) {
      if (name === 'table') {
        depth--;
        if (depth === 0 && isHere) throw new Enough();
        return;
      }
      if (!isHere || depth !== 1) return;
      if (name === 'annotation') inNote--;
      else if (name === 'p' && inParagraph > 0) inParagraph--;
      else if ((name === 'table-cell' || name === 'covered-table-cell') && cell) {
        const count = repeats(cell, 'number-columns-repeated');
        const [across, down] = [repeats(cell, 'number-columns-spanned'), repeats(cell, 'number-rows-spanned')];
        if ((across > 1 || down > 1) && merges.length < MOST_MERGES)
          merges.push({ top: row.row, left: at, bottom: row.row + down - 1, right: at + across - 1 });
        const read = cellOf(cell, text);
        if (read.text !== '') {
          while (row.cells.length < Math.min(at, MOST_COLUMNS)) row.cells.push(emptyCell);
          for (let index = 0; index < count && row.cells.length < MOST_COLUMNS; index++) row.cells.push(read);
        }
        at += count;
        cell = null;
      } else if (name === 'table-row') {
        // Empty rows are repeated up to the sheet's end; filled ones as often as they stand there.
        const { row: first, hidden, cells } = row;
        if (cells.length > 0)
          for (let index = 0; index < rowRepeats; index++)
            if (!onRow({ row: first + index, hidden, cells: [...cells] })) throw new Enough();
        row = { ...row, row: first + rowRepeats - 1 };
      }
    },
  });
  return { hiddenColumns, merges, notes: [] };
}
