import { MailbagError } from '../errors/catalogue.js';
import { openCsv } from './csv.js';
import { DateOrders } from './date-orders.js';
import { DecimalMarks } from './decimal-marks.js';
import { COLUMN_LIMIT, Gatherer, ROW_LIMIT } from './gather.js';
import { headingNames } from './headings.js';
import type { ColumnReading, SourceRecord } from './record.js';
import type { TableFile, TableReading, TableResult } from './table-file.js';
import { typedText } from './typed-text.js';

/** Reads the records of a CSV file: once for the order of its dates and the mark of its decimals, which any row may tell, and once for its records. */
export function readCsv(
  file: TableFile,
  wanted: TableReading,
  headingRow: number,
  onRecords: (records: SourceRecord[]) => void,
): Omit<TableResult, 'reading'> & { encoding: string; delimiter: string } {
  const { encoding, delimiter, rows, notes: told } = openCsv(file.bytes, file.name, wanted);
  const [orders, marks] = [new DateOrders(), new DecimalMarks()];
  let names: string[] = [];
  let last = 0;
  const broken = rows((cells, row) => {
    last = row;
    if (row === headingRow) names = headingNames(cells.slice(0, COLUMN_LIMIT)).names;
    else if (row > headingRow) {
      orders.see(cells);
      marks.see(cells);
    }
    return row <= headingRow + ROW_LIMIT;
  });
  if (broken.length > 0 && last <= headingRow) throw new MailbagError('sheet-broken-quotes', { file: file.name, rows: broken[0]!.names });
  const readings = wanted.columns ?? {};
  const found = names.map((_, index) => {
    const [dates, decimals] = [orders.of(index), marks.of(index)];
    return { ...(dates ? { dates } : {}), ...(decimals ? { decimals } : {}) };
  });
  const sets = names.map((name, index): ColumnReading => ({ ...found[index], ...(Object.hasOwn(readings, name) ? readings[name] : {}) }));
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
  columns.forEach((column, index) => {
    const told = found[index] ?? {};
    if (Object.keys(told).length > 0) column.found = told;
  });
  return { columns, count: gatherer.count, notes: [...notes, ...broken, ...told], encoding, delimiter };
}
