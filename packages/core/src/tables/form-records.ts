import { readFdf } from '../formdata/fdf.js';
import type { FormRecord } from '../formdata/form-record.js';
import { readJson } from '../formdata/json.js';
import { readFilledPdf } from '../formdata/pdf-values.js';
import { readXfdf } from '../formdata/xfdf.js';
import { readXml } from '../formdata/xml.js';
import { Allowance } from './allowance.js';
import { decodeText } from './csv.js';
import type { SheetFacts } from './gather.js';
import { Gatherer } from './gather.js';
import type { PairOfColumns } from './label-value.js';
import { findPairs, pairsOfRoles, pairsSentence, recordOfPairs } from './label-value.js';
import { firstRows } from './open-book.js';
import type { Cell, SourceNote, SourceRecord } from './record.js';
import { emptyCell } from './record.js';
import type { SheetBook, SheetRow } from './sheet-book.js';
import type { TableFile, TableKind, TableReading, TableResult } from './table-file.js';
import { sizeOf } from './table-file.js';
import { typedText } from './typed-text.js';

/** Rows of a sheet that are looked through for labels and values. */
const PAIR_ROWS = 5000;

/** The records of form data, one file at a time; null for tables. @throws MailbagError sheet-*, formdata-* */
export async function formRecords(
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
export const pairsFor = (rows: readonly SheetRow[], facts: SheetFacts, file: TableFile, { roles }: TableReading): PairOfColumns[] =>
  roles ? pairsOfRoles(roles) : findPairs(rows, facts.hiddenColumns, new Set(file.fieldNames));

/** Records of all sheets in which labels and values run down the page. */
export async function pairRecords(
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

/** Gives records of differing values the columns of all of them, and hands them on. */
export function gatherForms(
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
