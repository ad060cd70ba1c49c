import { format, isDateFormat } from 'numfmt';
import { SaxesParser } from 'saxes';
import { MailbagError } from '../errors/catalogue.js';
import type { ZipParts } from '../platform/ports.js';
import type { Cell } from './record.js';

/** A sheet of a workbook. */
export interface SheetName {
  name: string;
  part: string;
  hidden: boolean;
}

/** A workbook that has been opened: its sheets, shared strings and number formats. */
export interface Workbook {
  sheets: SheetName[];
  strings: string[];
  /** Number format by style index. */
  formats: string[];
  date1904: boolean;
}

export interface SheetRow {
  /** 1-based, as in the sheet. */
  row: number;
  hidden: boolean;
  cells: Cell[];
}

/** Limits against files that unpack to more than a machine holds: bytes unpacked, and how many times larger than packed. */
export const UNPACKED_LIMIT = 600 * 1024 * 1024;
const RATIO_LIMIT = 300;

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

type Decoder = new (label: string) => { decode(bytes?: Uint8Array, options?: { stream: boolean }): string };

interface Handlers {
  open?(name: string, attributes: Record<string, string>): void;
  text?(text: string): void;
  close?(name: string): void;
}

class Stop extends Error {}

/** Runs an XML part through handlers, local names only. A doctype is refused. */
async function parsePart(zip: ZipParts, file: string, part: string, handlers: Handlers): Promise<void> {
  const parser = new SaxesParser();
  const local = (name: string): string => name.slice(name.indexOf(':') + 1);
  const fail = (cause: unknown): never => {
    if (cause instanceof Stop) throw cause;
    throw new MailbagError('sheet-damaged', { file, part }, { cause });
  };
  parser.on('doctype', () => fail(new Error('doctype')));
  parser.on('error', fail);
  parser.on('opentag', (tag) => handlers.open?.(local(tag.name), tag.attributes as Record<string, string>));
  parser.on('text', (text) => handlers.text?.(text));
  parser.on('cdata', (text) => handlers.text?.(text));
  parser.on('closetag', (tag) => handlers.close?.(local(tag.name)));
  const decoder = new (globalThis as unknown as { TextDecoder: Decoder }).TextDecoder('utf-8');
  try {
    for await (const chunk of zip.read(part)) parser.write(decoder.decode(chunk, { stream: true }));
    parser.close();
  } catch (error) {
    if (error instanceof Stop) return;
    if (error instanceof MailbagError) throw error;
    fail(error);
  }
}

const attribute = (attributes: Record<string, string>, name: string): string | undefined =>
  attributes[name] ?? Object.entries(attributes).find(([key]) => key.endsWith(`:${name}`))?.[1];

/** Opens a workbook. @throws MailbagError sheet-not-a-workbook, sheet-damaged, sheet-zip-bomb */
export async function openWorkbook(zip: ZipParts, file: string): Promise<Workbook> {
  const unpacked = zip.parts.reduce((sum, part) => sum + part.size, 0);
  const suspicious = zip.parts.some((part) => part.size > 20_000_000 && part.size > part.compressedSize * RATIO_LIMIT);
  if (unpacked > UNPACKED_LIMIT || suspicious) {
    throw new MailbagError('sheet-zip-bomb', { file, size: Math.round(unpacked / 1048576), limit: Math.round(UNPACKED_LIMIT / 1048576) });
  }
  const has = (part: string): boolean => zip.parts.some((one) => one.name === part);
  if (!has('xl/workbook.xml')) throw new MailbagError('sheet-not-a-workbook', { file });
  const targets = new Map<string, string>();
  if (has('xl/_rels/workbook.xml.rels')) {
    await parsePart(zip, file, 'xl/_rels/workbook.xml.rels', {
      open(name, attributes) {
        if (name === 'Relationship') {
          const target = attributes.Target ?? '';
          targets.set(attributes.Id ?? '', target.startsWith('/') ? target.slice(1) : `xl/${target}`);
        }
      },
    });
  }
  const sheets: SheetName[] = [];
  let date1904 = false;
  await parsePart(zip, file, 'xl/workbook.xml', {
    open(name, attributes) {
      if (name === 'workbookPr') date1904 = ['1', 'true'].includes(attributes.date1904 ?? '');
      if (name === 'sheet') {
        const part = targets.get(attribute(attributes, 'id') ?? '') ?? '';
        if (has(part)) sheets.push({ name: attributes.name ?? '', part, hidden: (attributes.state ?? 'visible') !== 'visible' });
      }
    },
  });
  const strings = has('xl/sharedStrings.xml') ? await readStrings(zip, file) : [];
  return {
    sheets: sheets.filter((sheet) => /worksheets/.test(sheet.part)),
    strings,
    formats: has('xl/styles.xml') ? await readFormats(zip, file) : [],
    date1904,
  };
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
      if (name === 'numFmt') custom.set(Number(attributes.numFmtId), attributes.formatCode ?? 'General');
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

const columnIndex = (reference: string): number => {
  let index = 0;
  for (const char of reference) {
    const code = char.charCodeAt(0);
    if (code >= 65 && code <= 90) index = index * 26 + code - 64;
    else break;
  }
  return index - 1;
};

const DAY_MS = 86_400_000;

/** A serial date as ISO 8601 text, with its time where it has one. */
export function serialDate(serial: number, date1904: boolean): string {
  const days = date1904 ? serial + 1462 : serial < 60 ? serial + 1 : serial;
  const date = new Date(Math.round((days - 25569) * DAY_MS));
  const text = date.toISOString();
  return Number.isInteger(serial) ? text.slice(0, 10) : text.slice(0, 19);
}

/** A number cell as it is shown, and as value: ISO text for dates, text where digits would be lost. */
function numberCell(raw: string, pattern: string, date1904: boolean): Cell {
  const value = Number(raw);
  if (!Number.isFinite(value)) return { text: raw, value: raw };
  if (pattern === 'General' || pattern === '@') {
    const plain = Math.abs(value) >= 1e21 || (value !== 0 && Math.abs(value) < 1e-7) ? raw : String(Number(value.toPrecision(15)));
    return { text: plain, value };
  }
  let text: string;
  try {
    text = format(pattern, date1904 && isDateFormat(pattern) ? value + 1462 : value, { throws: true });
  } catch {
    text = String(value);
  }
  return { text, value: isDateFormat(pattern) && /[dy]/i.test(pattern) ? serialDate(value, date1904) : value };
}

/**
 * Streams the rows of a sheet.
 * @param onRow returns false to stop
 */
export async function readSheet(
  zip: ZipParts,
  file: string,
  workbook: Workbook,
  sheet: SheetName,
  onRow: (row: SheetRow) => boolean,
): Promise<{ hiddenColumns: number[] }> {
  const hiddenColumns: number[] = [];
  let row: SheetRow = { row: 0, hidden: false, cells: [] };
  let at = -1;
  let type = 'n';
  let style = 0;
  let raw = '';
  let inline = '';
  let inValue = false;
  let inInline = false;
  const finish = (): void => {
    const pattern = workbook.formats[style] ?? 'General';
    let cell: Cell = { text: '', value: null };
    if (type === 's') cell = textCell(workbook.strings[Number(raw)] ?? '');
    else if (type === 'inlineStr') cell = textCell(inline);
    else if (raw === '') cell = { text: '', value: null };
    else if (type === 'str') cell = textCell(raw);
    else if (type === 'b') cell = { text: raw === '1' ? 'TRUE' : 'FALSE', value: raw === '1' };
    else if (type === 'e') cell = { text: raw, value: raw };
    else if (type === 'd') cell = { text: raw, value: raw };
    else cell = numberCell(raw, pattern, workbook.date1904);
    while (row.cells.length < at) row.cells.push({ text: '', value: null });
    row.cells[at] = cell;
  };
  const textCell = (text: string): Cell => {
    const clean = text.includes('_x') ? unescapeText(text) : text;
    return { text: clean, value: clean };
  };
  await parsePart(zip, file, sheet.part, {
    open(name, attributes) {
      if (name === 'row') {
        row = {
          row: attributes.r ? Number(attributes.r) : row.row + 1,
          hidden: ['1', 'true'].includes(attributes.hidden ?? ''),
          cells: [],
        };
        at = -1;
      } else if (name === 'c') {
        at = attributes.r ? columnIndex(attributes.r) : at + 1;
        type = attributes.t ?? 'n';
        style = Number(attributes.s ?? 0);
        raw = '';
        inline = '';
      } else if (name === 'v') inValue = true;
      else if (name === 't') inInline = true;
      else if (name === 'col' && ['1', 'true'].includes(attributes.hidden ?? '')) {
        for (let index = Number(attributes.min); index <= Math.min(Number(attributes.max), 16_384); index++) hiddenColumns.push(index - 1);
      }
    },
    text(text) {
      if (inValue) raw += text;
      else if (inInline) inline += text;
    },
    close(name) {
      if (name === 'v') inValue = false;
      else if (name === 't') inInline = false;
      else if (name === 'c') finish();
      else if (name === 'row' && !onRow(row)) throw new Stop();
    },
  });
  return { hiddenColumns };
}
