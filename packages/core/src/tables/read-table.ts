import { MailbagError } from '../errors/catalogue.js';
import type { FormRecord } from '../formdata/form-record.js';
import { lookInto } from './excerpt-table.js';
import { formRecords, gatherForms, pairRecords } from './form-records.js';
import { Gatherer } from './gather.js';
import { headingNames, joinedHeadings } from './headings.js';
import { bookOf, pickSheet } from './open-book.js';
import { readCsv } from './read-csv.js';
import type { Cell, ColumnReading, SourceRecord } from './record.js';
import { emptyCell } from './record.js';
import type { TableFile, TableReading, TableResult } from './table-file.js';
import { sizeOf, tableKind } from './table-file.js';
import { typedText } from './typed-text.js';

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
