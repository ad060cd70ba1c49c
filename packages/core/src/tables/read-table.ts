import { MailbagError } from '../errors/catalogue.js';
import type { ZipParts } from '../platform/ports.js';
import { readCsv, typedCell } from './csv.js';
import { columnLetters, guessHeadingRow, headingNames } from './headings.js';
import { ColumnProfile } from './profile.js';
import type { Cell, Column, SourceNote, SourceRecord } from './record.js';
import { emptyCell } from './record.js';
import type { Workbook } from './xlsx.js';
import { openWorkbook, readSheet } from './xlsx.js';

/** A file as the host offers it: its bytes, and its parts when it is a zip file. */
export interface TableFile {
  name: string;
  bytes: Uint8Array;
  zip: ZipParts | null;
}

/** How a table is to be read. Undefined: guessed. */
export interface TableReading {
  sheet?: string;
  /** Row of the headings, 1-based. */
  headingRow?: number;
  encoding?: string;
  delimiter?: string;
}

/** The first rows of a file with what was guessed, before anything is accepted. */
export interface TableExcerpt {
  sheets: { name: string; hidden: boolean }[];
  sheet: string | null;
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

/** Records that one source holds at most. */
export const ROW_LIMIT = 500_000;
const EXCERPT_ROWS = 30;
const ERROR_CELL = /^#(N\/A|REF!|VALUE!|DIV\/0!|NAME\?|NUM!|NULL!)$/;

/** What kind of file this is by its first bytes. @throws MailbagError for what is neither a workbook nor text */
export function tableKind(file: TableFile): 'xlsx' | 'csv' {
  const [a, b, c, d] = file.bytes;
  if (file.bytes.length === 0) throw new MailbagError('sheet-empty', { where: file.name });
  if (a === 0x50 && b === 0x4b) return 'xlsx';
  if (a === 0xd0 && b === 0xcf && c === 0x11 && d === 0xe0) {
    let head = '';
    for (const byte of file.bytes.subarray(0, 65_536)) if (byte !== 0) head += String.fromCharCode(byte);
    throw new MailbagError(head.includes('EncryptedPackage') || head.includes('EncryptionInfo') ? 'sheet-password' : 'sheet-old-workbook', {
      file: file.name,
    });
  }
  const sample = file.bytes.subarray(0, 4096);
  const zeros = sample.filter((byte) => byte === 0).length;
  const odd = sample.filter((byte) => byte < 9 || (byte > 13 && byte < 32)).length - zeros;
  const isWide = (a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff) || zeros > sample.length / 4;
  if (odd > sample.length / 50 || (zeros > 0 && !isWide) || (a === 0x25 && b === 0x50 && c === 0x44))
    throw new MailbagError('sheet-not-a-workbook', { file: file.name });
  return 'csv';
}

async function workbookOf(file: TableFile): Promise<{ zip: ZipParts; workbook: Workbook }> {
  if (!file.zip) throw new MailbagError('sheet-damaged', { file: file.name, part: 'the zip directory' });
  const workbook = await openWorkbook(file.zip, file.name);
  if (workbook.sheets.length === 0) throw new MailbagError('sheet-damaged', { file: file.name, part: 'the list of sheets' });
  return { zip: file.zip, workbook };
}

function pickSheet(workbook: Workbook, file: string, wanted?: string) {
  if (wanted === undefined) return workbook.sheets.find((sheet) => !sheet.hidden) ?? workbook.sheets[0]!;
  const found = workbook.sheets.find((sheet) => sheet.name === wanted);
  if (!found) throw new MailbagError('sheet-missing', { file, sheet: wanted, sheets: workbook.sheets.map((sheet) => sheet.name) });
  return found;
}

/** The first rows of a file, with sheet and heading row guessed. @throws MailbagError sheet-* */
export async function excerptTable(file: TableFile, reading: TableReading = {}): Promise<TableExcerpt> {
  if (tableKind(file) === 'csv') {
    const { rows: head, encoding, delimiter } = readCsv(file.bytes, file.name, reading, { preview: EXCERPT_ROWS });
    return {
      sheets: [],
      sheet: null,
      headingRow: reading.headingRow ?? guessHeadingRow(head) + 1,
      encoding,
      delimiter,
      rows: head.map((cells, index) => ({ row: index + 1, cells })),
    };
  }
  const { zip, workbook } = await workbookOf(file);
  const sheet = pickSheet(workbook, file.name, reading.sheet);
  const rows: { row: number; cells: string[] }[] = [];
  await readSheet(zip, file.name, workbook, sheet, (row) => {
    if (row.cells.some((cell) => cell?.text)) rows.push({ row: row.row, cells: Array.from(row.cells, (cell) => cell?.text ?? '') });
    return rows.length < EXCERPT_ROWS;
  });
  const guessed = rows[guessHeadingRow(rows.map((row) => row.cells))]?.row ?? 1;
  return {
    sheets: workbook.sheets.map(({ name, hidden }) => ({ name, hidden })),
    sheet: sheet.name,
    headingRow: reading.headingRow ?? guessed,
    encoding: null,
    delimiter: null,
    rows,
  };
}

/** Gathers rows below the headings into records, with profiles and notes. */
class Gatherer {
  private names: string[] | null = null;
  private profiles: ColumnProfile[] = [];
  private readonly notes: SourceNote[] = [];
  private ragged: string[] = [];
  private raggedCount = 0;
  private errors: string[] = [];
  private errorCount = 0;
  private emptyRows = 0;
  private emptyRun = 0;
  private hidden = 0;
  count = 0;

  constructor(
    private readonly where: string,
    private readonly headingRow: number,
    private readonly onRecords: (records: SourceRecord[]) => void,
    private pending: SourceRecord[] = [],
  ) {}

  see(row: number, cells: readonly Cell[], hidden: boolean): void {
    if (row < this.headingRow) return;
    if (row === this.headingRow) {
      const texts = Array.from(cells, (cell) => cell?.text ?? '');
      while (texts.length > 0 && !texts.at(-1)!.trim()) texts.pop();
      if (texts.length === 0) throw new MailbagError('sheet-no-headings', { row, where: this.where });
      const { names, slugs, notes } = headingNames(texts);
      this.names = names;
      this.profiles = names.map((name, index) => new ColumnProfile(name, slugs[index]!));
      this.notes.push(...notes);
      return;
    }
    if (!this.names) throw new MailbagError('sheet-no-headings', { row: this.headingRow, where: this.where });
    const width = this.names.length;
    if (!cells.some((cell) => cell?.text.trim())) {
      this.emptyRun++;
      return;
    }
    this.emptyRows += this.emptyRun;
    this.emptyRun = 0;
    if (hidden) this.hidden++;
    if (cells.slice(width).some((cell) => cell?.text.trim())) {
      this.raggedCount++;
      if (this.ragged.length < 5) this.ragged.push(`row ${row}`);
    }
    const record: SourceRecord = { row, cells: Array.from({ length: width }, (_, index) => cells[index] ?? emptyCell) };
    record.cells.forEach((cell, index) => {
      this.profiles[index]!.see(cell);
      if (cell.text.startsWith('#') && ERROR_CELL.test(cell.text)) {
        this.errorCount++;
        if (this.errors.length < 5) this.errors.push(`${columnLetters(index)}${row}`);
      }
    });
    this.count++;
    if (this.count > ROW_LIMIT) throw new MailbagError('sheet-too-many-rows', { where: this.where, limit: ROW_LIMIT });
    this.pending.push(record);
    if (this.pending.length >= 500) this.flush();
  }

  private flush(): void {
    if (this.pending.length > 0) this.onRecords(this.pending);
    this.pending = [];
  }

  done(hiddenColumns: readonly number[]): { columns: Column[]; notes: SourceNote[] } {
    this.flush();
    if (!this.names) throw new MailbagError('sheet-empty', { where: this.where });
    if (this.count === 0) throw new MailbagError('sheet-empty', { where: `${this.where} below row ${this.headingRow}` });
    const hiddenNames = hiddenColumns.map((index) => this.names![index]).filter((name) => name !== undefined);
    const note = (code: SourceNote['code'], count: number, names: string[] = []): void => {
      if (count > 0) this.notes.push({ code, count, names });
    };
    note('hidden-rows', this.hidden);
    note('hidden-columns', hiddenNames.length, hiddenNames);
    note('error-cells', this.errorCount, this.errors);
    note('ragged-rows', this.raggedCount, this.ragged);
    note('empty-rows', this.emptyRows);
    return { columns: this.profiles.map((profile) => profile.done()), notes: this.notes };
  }
}

/**
 * Reads all records of a file, in blocks of at most 500.
 * @throws MailbagError sheet-*
 */
export async function readTable(file: TableFile, wanted: TableReading, onRecords: (records: SourceRecord[]) => void): Promise<TableResult> {
  const excerpt = await excerptTable(file, wanted);
  const reading: TableReading = { headingRow: excerpt.headingRow };
  if (excerpt.sheet === null) {
    const { rows, encoding, delimiter, guessed } = readCsv(file.bytes, file.name, wanted, { rows: ROW_LIMIT });
    const gatherer = new Gatherer(file.name, excerpt.headingRow, onRecords);
    rows.forEach((cells, index) => gatherer.see(index + 1, cells.map(typedCell), false));
    const { columns, notes } = gatherer.done([]);
    if (guessed) notes.push({ code: 'encoding-guessed', count: 1, names: [encoding] });
    return { columns, count: gatherer.count, notes, reading: { ...reading, encoding, delimiter } };
  }
  const { zip, workbook } = await workbookOf(file);
  const sheet = pickSheet(workbook, file.name, wanted.sheet);
  const gatherer = new Gatherer(`${file.name}, sheet “${sheet.name}”`, excerpt.headingRow, onRecords);
  const { hiddenColumns } = await readSheet(zip, file.name, workbook, sheet, (row) => {
    gatherer.see(row.row, row.cells, row.hidden);
    return true;
  });
  const { columns, notes } = gatherer.done(hiddenColumns);
  if (sheet.hidden) notes.push({ code: 'hidden-sheet', count: 1, names: [sheet.name] });
  return { columns, count: gatherer.count, notes, reading: { ...reading, sheet: sheet.name } };
}
