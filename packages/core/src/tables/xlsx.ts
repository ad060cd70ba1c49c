import { MailbagError } from '../errors/catalogue.js';
import type { ZipParts } from '../platform/ports.js';
import { refuseLongCell } from './allowance.js';
import type { SheetFacts } from './gather.js';
import { Tally } from './gather.js';
import { columnLetters } from './headings.js';
import { MOST_DIGITS, numberCell, significantDigits } from './number-cell.js';
import type { Cell, SourceNote } from './record.js';
import { emptyCell } from './record.js';
import type { SheetBook, SheetRow } from './sheet-book.js';
import { Enough, attribute, parsePart, refuseBombs } from './xml-part.js';

interface Sheet {
  name: string;
  part: string;
  hidden: boolean;
}

/** What all sheets of a workbook share. */
interface Shared {
  zip: ZipParts;
  file: string;
  strings: string[];
  /** Number format by style index. */
  formats: string[];
  date1904: boolean;
}

/** Number formats that need no entry in the workbook: ECMA-376, part 1, 18.8.30. */
const builtIn: Record<number, string> = {
  0: 'General',
  1: '0',
  2: '0.00',
  3: '#,##0',
  4: '#,##0.00',
  9: '0%',
  10: '0.00%',
  11: '0.00E+00',
  12: '# ?/?',
  13: '# ??/??',
  14: 'yyyy-mm-dd',
  15: 'd-mmm-yy',
  16: 'd-mmm',
  17: 'mmm-yy',
  18: 'h:mm AM/PM',
  19: 'h:mm:ss AM/PM',
  20: 'h:mm',
  21: 'h:mm:ss',
  22: 'yyyy-mm-dd h:mm',
  37: '#,##0;(#,##0)',
  38: '#,##0;[Red](#,##0)',
  39: '#,##0.00;(#,##0.00)',
  40: '#,##0.00;[Red](#,##0.00)',
  45: 'mm:ss',
  46: '[h]:mm:ss',
  47: 'mmss.0',
  48: '##0.0E+0',
  49: '@',
};

const isOn = (value: string | undefined): boolean => value === '1' || value === 'true';

/** The path of a part that another one names (ECMA-376, part 2, 6.2). */
const partPath = (target: string): string => {
  const path: string[] = [];
  for (const step of (target.startsWith('/') ? target : `/xl/${target}`).split('/')) {
    if (step === '..') path.pop();
    else if (step !== '' && step !== '.') path.push(step);
  }
  return path.join('/');
};

/** Opens a workbook in SpreadsheetML (ECMA-376, part 1, 18). @throws MailbagError sheet-not-a-workbook, sheet-damaged, sheet-zip-bomb */
export async function openXlsx(zip: ZipParts, file: string): Promise<SheetBook> {
  refuseBombs(zip, file);
  const has = (part: string): boolean => zip.parts.some((one) => one.name === part);
  const workbook = await workbookPart(zip, file, has);
  if (!has(workbook)) throw new MailbagError('sheet-not-a-workbook', { file });
  const targets = new Map<string, string>();
  const folder = workbook.slice(0, workbook.lastIndexOf('/') + 1);
  const relations = `${folder}_rels/${workbook.slice(folder.length)}.rels`;
  if (has(relations)) {
    await parsePart(zip, file, relations, {
      open(name, attributes) {
        if (name === 'Relationship') targets.set(attributes.Id ?? '', partPath(attributes.Target ?? ''));
      },
    });
  }
  const sheets: Sheet[] = [];
  let date1904 = false;
  await parsePart(zip, file, workbook, {
    open(name, attributes) {
      if (name === 'workbookPr') date1904 = isOn(attributes.date1904);
      if (name === 'sheet') {
        const part = targets.get(attribute(attributes, 'id') ?? '') ?? `xl/worksheets/sheet${sheets.length + 1}.xml`;
        // Charts and dialogs are sheets too, without cells.
        if (has(part) && /worksheets/.test(part))
          sheets.push({ name: attributes.name ?? '', part, hidden: (attributes.state ?? 'visible') !== 'visible' });
      }
    },
  });
  const shared: Shared = {
    zip,
    file,
    strings: has('xl/sharedStrings.xml') ? await readStrings(zip, file) : [],
    formats: has('xl/styles.xml') ? await readFormats(zip, file) : [],
    date1904,
  };
  const notes: SourceNote[] = [];
  if (zip.parts.some(({ name }) => /vbaProject\.bin$/.test(name))) notes.push({ code: 'macros', count: 1, names: [] });
  if (zip.parts.some(({ name }) => name.startsWith('xl/externalLinks/'))) notes.push({ code: 'external-links', count: 1, names: [] });
  return { sheets, notes, rows: (name, onRow) => readRows(shared, sheets.find((sheet) => sheet.name === name)!.part, onRow) };
}

/** The part that holds the workbook, by the package's relationships (ECMA-376, part 2, 6.5); usually xl/workbook.xml. */
async function workbookPart(zip: ZipParts, file: string, has: (part: string) => boolean): Promise<string> {
  const usual = 'xl/workbook.xml';
  if (has(usual) || !has('_rels/.rels')) return usual;
  let found = usual;
  await parsePart(zip, file, '_rels/.rels', {
    open(name, attributes) {
      if (name === 'Relationship' && /\/officeDocument$/.test(attributes.Type ?? ''))
        found = (attributes.Target ?? usual).replace(/^\//, '');
    },
  });
  return found;
}

async function readStrings(zip: ZipParts, file: string): Promise<string[]> {
  const strings: string[] = [];
  let current = '';
  let inText = false;
  let phonetic = false;
  await parsePart(zip, file, 'xl/sharedStrings.xml', {
    open(name) {
      if (name === 'si') current = '';
      if (name === 'rPh') phonetic = true;
      if (name === 't') inText = !phonetic;
    },
    text(text) {
      if (inText) current += text;
    },
    close(name) {
      if (name === 't') inText = false;
      if (name === 'rPh') phonetic = false;
      if (name === 'si') strings.push(current);
    },
  });
  return strings;
}

async function readFormats(zip: ZipParts, file: string): Promise<string[]> {
  const custom = new Map<number, string>();
  const formats: string[] = [];
  let inCells = false;
  await parsePart(zip, file, 'xl/styles.xml', {
    open(name, attributes) {
      if (name === 'numFmt')
        custom.set(
          Number(attributes.numFmtId),
          (attributes.formatCode ?? '').length <= LONGEST_FORMAT ? (attributes.formatCode ?? 'General') : 'General',
        );
      if (name === 'cellXfs') inCells = true;
      if (name === 'xf' && inCells) {
        const id = Number(attributes.numFmtId ?? 0);
        formats.push(custom.get(id) ?? builtIn[id] ?? 'General');
      }
    },
    close(name) {
      if (name === 'cellXfs') inCells = false;
    },
  });
  return formats;
}

/** Escapes such as `_x000D_` in strings: ECMA-376, part 1, 22.9.2.19. */
const unescapeText = (text: string): string =>
  text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)));

/** 0-based. */
const columnIndex = (reference: string): number => {
  let index = 0;
  for (const char of reference) {
    const code = char.charCodeAt(0);
    if (code >= 65 && code <= 90) index = index * 26 + code - 64;
    else break;
  }
  return index - 1;
};

/** A range such as `B2:D4`; null when it is none. */
function rangeOf(reference: string): SheetFacts['merges'][number] | null {
  const parts = /^([A-Z]+)(\d+):([A-Z]+)(\d+)$/.exec(reference);
  return parts ? { left: columnIndex(parts[1]!), top: Number(parts[2]), right: columnIndex(parts[3]!), bottom: Number(parts[4]) } : null;
}

const MOST_MERGES = 10_000;
/** UTF-16 units of a number format. Common practice, no source. */
const LONGEST_FORMAT = 255;
/** Columns of a sheet, by its format. */
const MOST_COLUMNS = 16_384;

/** An ISO 8601 date or time (ECMA-376, part 1, 18.18.11, d); a time of no day, or of the days before the calendar begins, is one by itself. */
function isoCell(raw: string): Cell {
  const [, date = '', time = ''] = /^(\d{4}-\d\d-\d\d)?T?(\d\d:\d\d(?::\d\d)?)?(?:\.\d+)?Z?$/.exec(raw.trim()) ?? [];
  const clock = time.replace(/:00$/, '').length === 5 ? time.replace(/^(\d\d:\d\d):00$/, '$1') : time;
  const value = date === '' || date < '1900-01-01' ? clock || raw : clock === '' || clock === '00:00' ? date : `${date}T${time}`;
  return { text: value.replace('T', ' '), value };
}

/** Streams the rows of a sheet. */
async function readRows(shared: Shared, part: string, onRow: (row: SheetRow) => boolean): Promise<SheetFacts> {
  const { strings, formats, date1904 } = shared;
  const hiddenColumns: number[] = [];
  /** 1-based; the format lists columns in their order. */
  let hiddenThrough = 0;
  const merges: SheetFacts['merges'][number][] = [];
  const withoutValue = new Tally();
  const lost = new Tally();
  const kept = new Tally();
  let row: SheetRow = { row: 0, hidden: false, cells: [] };
  let at = -1;
  let type = 'n';
  let style = 0;
  let raw = '';
  let isFormula = false;
  let inValue = false;
  let inInline = false;
  let isPhonetic = false;
  const textCell = (text: string): Cell => {
    const clean = text.includes('_x') ? unescapeText(text) : text;
    return { text: clean, value: clean };
  };
  const place = (): string => `${columnLetters(at)}${row.row}`;
  const cellOf = (): Cell => {
    if (type === 's') return textCell(strings[Number(raw)] ?? '');
    if (type === 'inlineStr' || type === 'str') return textCell(raw);
    if (raw === '') {
      if (isFormula) withoutValue.add(place());
      return emptyCell;
    }
    if (type === 'b') return { text: raw === '1' ? 'TRUE' : 'FALSE', value: raw === '1' };
    if (type === 'e') return { text: raw, value: raw };
    // ISO 8601 dates as the strict form of the format has them.
    if (type === 'd') return isoCell(raw);
    const cell = numberCell(raw, formats[style] ?? 'General', date1904);
    if (raw.length > MOST_DIGITS && typeof cell.value === 'string' && Number.isInteger(Number(raw)))
      (significantDigits(raw) > MOST_DIGITS + 2 || Math.abs(Number(raw)) >= 1e16 ? lost : kept).add(place());
    return cell;
  };
  await parsePart(shared.zip, shared.file, part, {
    open(name, attributes) {
      if (name === 'c') {
        at = attributes.r ? columnIndex(attributes.r) : at + 1;
        type = attributes.t ?? 'n';
        style = attributes.s ? Number(attributes.s) : 0;
        raw = '';
        isFormula = false;
      } else if (name === 'v') inValue = true;
      else if (name === 't') inInline = !isPhonetic;
      else if (name === 'f') isFormula = true;
      else if (name === 'rPh') isPhonetic = true;
      else if (name === 'row') {
        row = { row: attributes.r ? Number(attributes.r) : row.row + 1, hidden: isOn(attributes.hidden), cells: [] };
        at = -1;
      } else if (name === 'col' && isOn(attributes.hidden)) {
        for (
          let index = Math.max(Number(attributes.min) || 1, hiddenThrough + 1);
          index <= Math.min(Number(attributes.max), MOST_COLUMNS);
          index++
        )
          hiddenColumns.push(index - 1);
        hiddenThrough = Math.max(hiddenThrough, Number(attributes.max) || 0);
      } else if (name === 'mergeCell' && merges.length < MOST_MERGES) {
        const range = rangeOf(attributes.ref ?? '');
        if (range) merges.push(range);
      }
    },
    text(text) {
      if (!inValue && !inInline) return;
      raw += text;
      refuseLongCell(raw, shared.file, row.row);
    },
    close(name) {
      if (name === 'v') inValue = false;
      else if (name === 't') inInline = false;
      else if (name === 'rPh') isPhonetic = false;
      else if (name === 'c') {
        if (at < 0 || at >= MOST_COLUMNS) return;
        const cell = cellOf();
        if (cell.text === '') return;
        while (row.cells.length < at) row.cells.push(emptyCell);
        row.cells[at] = cell;
      } else if (name === 'row' && !onRow(row)) throw new Enough();
    },
  });
  return {
    hiddenColumns,
    merges,
    notes: [...withoutValue.note('formula-without-value'), ...lost.note('digits-lost'), ...kept.note('digits-kept')],
  };
}
