import { MailbagError } from '../errors/catalogue.js';
import { readFdf } from '../formdata/fdf.js';
import type { FormRecord } from '../formdata/form-record.js';
import { readJson } from '../formdata/json.js';
import { readFilledPdf } from '../formdata/pdf-values.js';
import { readXfdf } from '../formdata/xfdf.js';
import { readXml } from '../formdata/xml.js';
import type { ZipParts } from '../platform/ports.js';
import { Allowance } from './allowance.js';
import { decodeText, firstCsvRows, openCsv, wideOrder } from './csv.js';
import { DateOrders } from './date-orders.js';
import { openForeign } from './foreign-book.js';
import type { SheetFacts } from './gather.js';
import { COLUMN_LIMIT, Gatherer, ROW_LIMIT } from './gather.js';
import { guessHeadingRow, headingNames, joinedHeadings, twoHeadingRows, upperHeadings } from './headings.js';
import type { PairOfColumns } from './label-value.js';
import { findPairs, looksLikeTable, pairsOfRoles, pairsSentence, recordOfPairs, rolesOf } from './label-value.js';
import { openOds } from './ods.js';
import type { Cell, Column, ColumnReading, SourceNote, SourceRecord } from './record.js';
import { emptyCell } from './record.js';
import type { ForeignBook, SheetBook, SheetRow } from './sheet-book.js';
import { typedText } from './typed-text.js';
import { openXlsx } from './xlsx.js';

/** A file as the host offers it: its bytes, its parts when it is a zip file, and a way to read the older binary workbooks. */
export interface TableFile {
  name: string;
  bytes: Uint8Array;
  zip: ZipParts | null;
  /** Names of the fields of the templates that are there: a column of them names what stands beside it. */
  fieldNames?: readonly string[];
  /** Reads a workbook in a binary format with a library, apart and with limited memory. @throws MailbagError sheet-* */
  foreign?: () => Promise<ForeignBook>;
}

/** How a table is to be read. Undefined: guessed. */
export interface TableReading {
  sheet?: string;
  /** Row of the headings, 1-based. */
  headingRow?: number;
  encoding?: string;
  delimiter?: string;
  /** `pairs`: labels and values down the page, a sheet a record. */
  layout?: 'table' | 'pairs';
  /** Of labels and values: what each column is, a letter a column: l labels, n technical names, v values, - none of them. */
  roles?: string;
  /** By the name of the column. */
  columns?: Record<string, ColumnReading>;
}

export type TableKind = 'xlsx' | 'ods' | 'foreign' | 'csv' | 'xfdf' | 'fdf' | 'xml' | 'json' | 'pdf';

/** The first rows of a file with what was guessed, before anything is accepted. */
export interface TableExcerpt {
  kind: TableKind;
  layout: 'table' | 'pairs';
  /** What each column was taken for where labels and values run down the page, as in `TableReading`; null: a table. */
  roles: string | null;
  sheets: { name: string; hidden: boolean }[];
  sheet: string | null;
  /** 0 where there is none: label-value sheets and form data. */
  headingRow: number;
  encoding: string | null;
  delimiter: string | null;
  /** Up to 30 rows as text; `row` is 1-based. */
  rows: { row: number; cells: string[] }[];
}

export interface TableResult {
  columns: Column[];
  count: number;
  notes: SourceNote[];
  reading: TableReading;
}

const EXCERPT_ROWS = 30;
/** Rows of a sheet that are looked at to tell labels and values from a table. */
const LOOK_ROWS = 400;
/** Rows of a sheet that are looked through for labels and values. */
const PAIR_ROWS = 5000;
/** Columns and UTF-16 units of a cell that an excerpt shows. */
const EXCERPT_COLUMNS = 2000;
const EXCERPT_UNITS = 300;

const startsWith = (bytes: Uint8Array, text: string): boolean => [...text].every((char, index) => bytes[index] === char.charCodeAt(0));

/** Bytes of a file, unpacked. */
const sizeOf = ({ bytes, zip }: TableFile): number => zip?.parts.reduce((sum, { size }) => sum + size, 0) ?? bytes.length;

/** What kind of file this is by its first bytes. @throws MailbagError for what is neither a workbook nor text nor form data */
export function tableKind(file: TableFile): TableKind {
  const { bytes, name, zip } = file;
  const [a, b, c, d] = bytes;
  if (bytes.length === 0) throw new MailbagError('sheet-empty', { where: name });
  if (a === 0x50 && b === 0x4b) {
    const has = (part: string): boolean => zip?.parts.some((one) => one.name === part) ?? false;
    return has('xl/workbook.bin') ? 'foreign' : has('content.xml') && !has('xl/workbook.xml') ? 'ods' : 'xlsx';
  }
  if (a === 0xd0 && b === 0xcf && c === 0x11 && d === 0xe0) {
    let head = '';
    for (const byte of bytes.subarray(0, 65_536)) if (byte !== 0) head += String.fromCharCode(byte);
    if (head.includes('EncryptedPackage') || head.includes('EncryptionInfo')) throw new MailbagError('sheet-password', { file: name });
    return 'foreign';
  }
  if (startsWith(bytes, '%PDF')) return 'pdf';
  if (startsWith(bytes, '%FDF')) return 'fdf';
  const sample = bytes.subarray(0, 4096);
  const zeros = sample.filter((byte) => byte === 0).length;
  const odd = sample.filter((byte) => byte < 9 || (byte > 13 && byte < 32)).length - zeros;
  const isWide = (a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff) || wideOrder(sample) !== null;
  if ((odd > sample.length / 50 && !isWide) || (zeros > 0 && !isWide)) throw new MailbagError('sheet-not-a-workbook', { file: name });
  const head = decodeText(sample).text.trimStart();
  // Programs save tables of HTML, or an older XML of their own, under the names of workbooks.
  if (/^<(html|table|!doctype html)/i.test(head) || /^<\?xml[^>]*>\s*(<\?mso-application[^>]*>\s*)?<(\w+:)?Workbook\b/.test(head))
    return 'foreign';
  if (head.startsWith('<'))
    return /<([\w-]+:)?xfdf[\s>]/.test(head) ? 'xfdf' : /^<(\?xml|!DOCTYPE|[\w-]+[\s>/])/.test(head) ? 'xml' : 'csv';
  return /^[[{]\s*["[{}\]]/.test(head) && /\.json$/i.test(name) ? 'json' : /^(\[\s*\{|\{\s*")/.test(head) ? 'json' : 'csv';
}

async function bookOf(file: TableFile, kind: TableKind): Promise<SheetBook | null> {
  let book: SheetBook;
  if (kind === 'foreign') {
    if (!file.foreign) throw new MailbagError('sheet-old-workbook', { file: file.name });
    book = openForeign(await file.foreign());
  } else if (kind === 'xlsx' || kind === 'ods') {
    if (!file.zip) throw new MailbagError('sheet-damaged', { file: file.name, part: 'the zip directory' });
    book = await (kind === 'xlsx' ? openXlsx(file.zip, file.name) : openOds(file.zip, file.name));
  } else return null;
  if (book.sheets.length === 0) throw new MailbagError('sheet-damaged', { file: file.name, part: 'the list of sheets' });
  return book;
}

function pickSheet(book: SheetBook, file: string, wanted?: string): SheetBook['sheets'][number] {
  if (wanted === undefined) return book.sheets.find((sheet) => !sheet.hidden) ?? book.sheets[0]!;
  const found = book.sheets.find((sheet) => sheet.name === wanted);
  if (!found) throw new MailbagError('sheet-missing', { file, sheet: wanted, sheets: book.sheets.map((sheet) => sheet.name) });
  return found;
}

/** The first rows of a sheet that hold anything. */
async function firstRows(
  book: SheetBook,
  sheet: string,
  allowance: Allowance,
  most: number,
): Promise<{ rows: SheetRow[]; facts: SheetFacts }> {
  const rows: SheetRow[] = [];
  const facts = await book.rows(sheet, (row) => {
    allowance.take(row.row, row.cells);
    if (row.cells.some((cell) => cell?.text)) rows.push(row);
    return rows.length < most;
  });
  return { rows, facts };
}

/**
 * Merged ranges of a sheet. Workbooks tell them after all rows, so a long sheet is gone through for them, but only where the first rows look as if headings
 * were merged.
 */
async function mergesOf(book: SheetBook, sheet: string, rows: readonly SheetRow[], facts: SheetFacts): Promise<SheetFacts['merges']> {
  if (facts.merges.length > 0 || rows.length < LOOK_ROWS) return facts.merges;
  const count = ({ cells }: SheetRow): number => cells.filter((cell) => cell?.text.trim()).length;
  const hasGaps = rows
    .slice(0, 10)
    .some((row, index) => count(row) >= 1 && count(row) < count(rows[index + 1]!) && rows[index + 1]!.row === row.row + 1);
  return hasGaps ? (await book.rows(sheet, () => true)).merges : [];
}

/** The records of form data, one file at a time; null for tables. @throws MailbagError sheet-*, formdata-* */
async function formRecords(
  file: TableFile,
  kind: TableKind,
  reading: TableReading,
): Promise<{ records: FormRecord[]; leftOut: string[] } | null> {
  switch (kind) {
    case 'xfdf':
      return { records: [await readXfdf(file.bytes, file.name)], leftOut: [] };
    case 'fdf':
      return { records: [readFdf(file.bytes, file.name)], leftOut: [] };
    case 'xml':
      return { records: await readXml(file.bytes, file.name), leftOut: [] };
    case 'json':
      return readJson(decodeText(file.bytes, reading.encoding).text, file.name);
    case 'pdf':
      return { records: [await readFilledPdf(file.bytes, file.name)], leftOut: [] };
    default:
      return null;
  }
}

/** The pairs of a sheet: those that a person has pointed out, or those that are found. */
const pairsFor = (rows: readonly SheetRow[], facts: SheetFacts, file: TableFile, { roles }: TableReading): PairOfColumns[] =>
  roles ? pairsOfRoles(roles) : findPairs(rows, facts.hiddenColumns, new Set(file.fieldNames));

/** Records of all sheets in which labels and values run down the page. */
async function pairRecords(
  book: SheetBook,
  file: TableFile,
  reading: TableReading,
): Promise<{ records: FormRecord[]; notes: SourceNote[] }> {
  const records: FormRecord[] = [];
  const notes: SourceNote[] = [];
  const allowance = new Allowance(file.name, sizeOf(file));
  for (const sheet of book.sheets) {
    if (sheet.hidden) continue;
    const { rows, facts } = await firstRows(book, sheet.name, allowance, PAIR_ROWS);
    const pairs = pairsFor(rows, facts, file, reading);
    if (pairs.length === 0) continue;
    if (records.length === 0) notes.push({ code: 'read-as-pairs', count: 1, names: [pairsSentence(pairs)] });
    records.push(recordOfPairs(rows, pairs));
  }
  return { records, notes };
}

const shownText = (text: string): string => (text.length > EXCERPT_UNITS ? `${text.slice(0, EXCERPT_UNITS)}…` : text);

const textsOf = (rows: readonly SheetRow[]): { row: number; cells: string[] }[] =>
  rows.map(({ row, cells }) => ({ row, cells: Array.from(cells.slice(0, EXCERPT_COLUMNS), (cell) => shownText(cell?.text ?? '')) }));

/** Records of differing values as rows below their names. */
const asRows = (records: readonly FormRecord[]): { row: number; cells: string[] }[] => {
  const names = [...new Set(records.flatMap((record) => [...record.keys()]))].slice(0, EXCERPT_COLUMNS);
  return [names, ...records.map((record) => names.map((name) => shownText(record.get(name)?.text ?? '')))].map((cells, index) => ({
    row: index,
    cells,
  }));
};

/** The first rows of a file, with sheet, layout and heading row guessed. @throws MailbagError sheet-*, formdata-* */
export const excerptTable = async (file: TableFile, reading: TableReading = {}): Promise<TableExcerpt> => {
  const kind = tableKind(file);
  return (await lookInto(file, kind, await bookOf(file, kind), reading)).excerpt;
};

/** What a look at the first rows tells. */
interface Look {
  excerpt: TableExcerpt;
  /** Texts of the upper one of two rows of headings, by column; null: there is only one. */
  upper: string[] | null;
}

async function lookInto(file: TableFile, kind: TableKind, book: SheetBook | null, reading: TableReading): Promise<Look> {
  const base = { kind, layout: 'table' as const, roles: null, sheets: [], sheet: null, encoding: null, delimiter: null };
  const only = (excerpt: TableExcerpt): Look => ({ excerpt, upper: null });
  if (kind === 'csv') {
    const table = openCsv(file.bytes, file.name, reading);
    const head = firstCsvRows(table, EXCERPT_ROWS);
    const { encoding, delimiter } = table;
    const rows = head.map((cells, index) => ({ row: index + 1, cells: cells.map(shownText) }));
    return only({ ...base, headingRow: reading.headingRow ?? guessHeadingRow(head) + 1, encoding, delimiter, rows });
  }
  if (!book) {
    const { records } = (await formRecords(file, kind, reading))!;
    return only({ ...base, headingRow: 0, rows: asRows(records.slice(0, EXCERPT_ROWS)) });
  }
  const sheets = book.sheets.map(({ name, hidden }) => ({ name, hidden }));
  const sheet = pickSheet(book, file.name, reading.sheet);
  const { rows, facts } = await firstRows(book, sheet.name, new Allowance(file.name, sizeOf(file)), LOOK_ROWS);
  const pairs = reading.layout === 'table' ? [] : pairsFor(rows, facts, file, reading);
  if (pairs.length > 0 && (reading.layout === 'pairs' || (reading.headingRow === undefined && !looksLikeTable(rows, pairs))))
    return only({
      ...base,
      sheets,
      sheet: sheet.name,
      layout: 'pairs',
      roles: rolesOf(
        pairs,
        rows.reduce((most, { cells }) => Math.max(most, cells.length), 0),
      ),
      headingRow: 0,
      rows: textsOf(rows.slice(0, EXCERPT_ROWS)),
    });
  if (reading.layout === 'pairs') throw new MailbagError('sheet-no-pairs', { where: `${file.name}, sheet “${sheet.name}”` });
  const texts = textsOf(rows.slice(0, EXCERPT_ROWS));
  const merges = await mergesOf(book, sheet.name, rows, facts);
  const at = twoHeadingRows(texts, merges) ?? guessHeadingRow(texts.map((row) => row.cells));
  const excerpt = { ...base, sheets, sheet: sheet.name, headingRow: reading.headingRow ?? texts[at]?.row ?? 1, rows: texts };
  return { excerpt, upper: upperHeadings(excerpt, merges) };
}

/** Gives records of differing values the columns of all of them, and hands them on. */
function gatherForms(
  records: readonly FormRecord[],
  where: string,
  size: number,
  reading: TableReading,
  onRecords: (records: SourceRecord[]) => void,
): Omit<TableResult, 'reading'> {
  const names = [...new Set(records.flatMap((record) => [...record.keys()]))];
  const readings = reading.columns ?? {};
  const gatherer = new Gatherer({ where, size, headingRow: 0, readings, onRecords });
  gatherer.see(
    0,
    names.map((text) => ({ text, value: text })),
    false,
  );
  records.forEach((record, index) =>
    gatherer.see(
      index + 1,
      names.map((name): Cell => {
        const cell = record.get(name) ?? emptyCell;
        return typeof cell.value === 'string' ? typedText(cell.text, readings[name]) : cell;
      }),
      false,
    ),
  );
  return { ...gatherer.done(), count: gatherer.count };
}

/** Values that are text in a workbook are typed only where a person has said how. */
const asSet = (cell: Cell | undefined, set: ColumnReading | undefined): Cell =>
  cell === undefined
    ? emptyCell
    : set === undefined || cell.text === ''
      ? cell
      : typeof cell.value === 'string' && !/^\d{4}-\d\d-\d\d/.test(cell.value)
        ? typedText(cell.text, set)
        : set.kind !== undefined && !['number', 'date', 'yes-no'].includes(set.kind)
          ? { text: cell.text, value: cell.text }
          : cell;

/** Reads the records of a CSV file: once for the order of its dates, which any row may tell, and once for its records. */
function readCsv(
  file: TableFile,
  wanted: TableReading,
  headingRow: number,
  onRecords: (records: SourceRecord[]) => void,
): Omit<TableResult, 'reading'> & { encoding: string; delimiter: string } {
  const { encoding, delimiter, rows, notes: told } = openCsv(file.bytes, file.name, wanted);
  const orders = new DateOrders();
  let names: string[] = [];
  let last = 0;
  const broken = rows((cells, row) => {
    last = row;
    if (row === headingRow) names = headingNames(cells.slice(0, COLUMN_LIMIT)).names;
    else if (row > headingRow) orders.see(cells);
    return row <= headingRow + ROW_LIMIT;
  });
  if (broken.length > 0 && last <= headingRow) throw new MailbagError('sheet-broken-quotes', { file: file.name, rows: broken[0]!.names });
  const readings = wanted.columns ?? {};
  const sets = names.map((name, index): ColumnReading => {
    const dates = orders.of(index);
    return { ...(dates ? { dates } : {}), ...(Object.hasOwn(readings, name) ? readings[name] : {}) };
  });
  const ambiguous = names.filter((_, index) => orders.isAmbiguous(index) && !sets[index]!.dates);
  const size = file.bytes.length;
  const gatherer = new Gatherer({ where: file.name, size, headingRow, readings, onRecords, tellsShort: true });
  rows((cells, row) => {
    gatherer.see(
      row,
      cells.map((text, at) => typedText(text, sets[at])),
      false,
    );
    return true;
  });
  const { columns, notes } = gatherer.done();
  if (ambiguous.length > 0) notes.push({ code: 'dates-ambiguous', count: ambiguous.length, names: ambiguous });
  return { columns, count: gatherer.count, notes: [...notes, ...broken, ...told], encoding, delimiter };
}

/**
 * Reads all records of a file, in blocks of at most 500.
 * @throws MailbagError sheet-*, formdata-*
 */
export async function readTable(file: TableFile, wanted: TableReading, onRecords: (records: SourceRecord[]) => void): Promise<TableResult> {
  const kind = tableKind(file);
  const readings = wanted.columns ?? {};
  const form = await formRecords(file, kind, wanted);
  if (form) {
    const result = gatherForms(form.records, file.name, sizeOf(file), wanted, onRecords);
    const { leftOut } = form;
    if (leftOut.length > 0) result.notes.push({ code: 'values-left-out', count: leftOut.length, names: leftOut.slice(0, 5) });
    return { ...result, reading: { ...wanted } };
  }
  const book = await bookOf(file, kind);
  const { excerpt, upper } = await lookInto(file, kind, book, wanted);
  const { headingRow } = excerpt;
  const reading: TableReading = { headingRow, ...(wanted.columns ? { columns: wanted.columns } : {}) };
  if (!book) {
    const { columns, count, notes, encoding, delimiter } = readCsv(file, wanted, headingRow, onRecords);
    return { columns, count, notes, reading: { ...reading, encoding, delimiter } };
  }
  const sheet = pickSheet(book, file.name, wanted.sheet);
  if (excerpt.layout === 'pairs') {
    const { records, notes } = await pairRecords(book, file, wanted);
    const result = gatherForms(records, file.name, sizeOf(file), wanted, onRecords);
    return {
      ...result,
      notes: [...notes, ...result.notes, ...book.notes],
      reading: { ...reading, layout: 'pairs', ...(wanted.roles ? { roles: wanted.roles } : {}) },
    };
  }
  const gatherer = new Gatherer({ where: `${file.name}, sheet “${sheet.name}”`, size: sizeOf(file), headingRow, readings, onRecords });
  const isSet = Object.keys(readings).length > 0;
  let sets: (ColumnReading | undefined)[] = [];
  const facts = await book.rows(sheet.name, ({ row, cells: own, hidden }) => {
    const cells = upper && row === headingRow ? joinedHeadings(upper, own) : own;
    if (isSet && row === headingRow) sets = headingNames(cells.map((cell) => cell?.text ?? '')).names.map((name) => readings[name]);
    gatherer.see(row, isSet && row > headingRow ? cells.map((cell, index) => asSet(cell, sets[index])) : cells, hidden);
    return true;
  });
  const { columns, notes } = gatherer.done(facts);
  if (upper) notes.push({ code: 'two-heading-rows', count: 1, names: columns.slice(0, 3).map(({ name }) => `“${name}”`) });
  if (sheet.hidden) notes.push({ code: 'hidden-sheet', count: 1, names: [sheet.name] });
  const others = book.sheets.filter((one) => one.hidden && one !== sheet).map(({ name }) => name);
  if (others.length > 0) notes.push({ code: 'other-hidden-sheets', count: others.length, names: others });
  return { columns, count: gatherer.count, notes: [...notes, ...book.notes], reading: { ...reading, sheet: sheet.name, layout: 'table' } };
}

/**
 * Reads several files as one source: each file that is form data, a filled PDF or a label-value sheet gives its records.
 * What cannot be read is skipped and told.
 * @throws MailbagError when none can be read
 */
export async function readFiles(
  files: readonly (() => Promise<TableFile>)[],
  wanted: TableReading,
  onRecords: (records: SourceRecord[]) => void,
): Promise<TableResult> {
  if (files.length === 1) return readTable(await files[0]!(), wanted, onRecords);
  const records: FormRecord[] = [];
  const skipped: string[] = [];
  let first: unknown = null;
  let size = 0;
  for (const open of files) {
    // One at a time, so that many large ones are never in memory together.
    const file = await open();
    size += sizeOf(file);
    try {
      const kind = tableKind(file);
      const form = await formRecords(file, kind, wanted);
      const book = form ? null : await bookOf(file, kind);
      const found = form?.records ?? (book ? (await pairRecords(book, file, wanted)).records : []);
      if (found.length === 0) throw new MailbagError('sheet-no-pairs', { where: file.name });
      for (const record of found) records.push(new Map([['File', { text: file.name, value: file.name }], ...record]));
    } catch (error) {
      first ??= error;
      skipped.push(file.name);
    }
  }
  if (records.length === 0) throw first;
  const result = gatherForms(records, `${files.length} files`, size, wanted, onRecords);
  if (skipped.length > 0) result.notes.push({ code: 'files-skipped', count: skipped.length, names: skipped.slice(0, 5) });
  return { ...result, reading: { ...wanted } };
}
