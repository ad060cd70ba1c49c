import { MailbagError } from '../errors/catalogue.js';
import { COLUMN_LIMIT } from './gather.js';
import { headingNames } from './headings.js';
import { ColumnProfile } from './profile.js';
import type { Column, ColumnReading, SourceRecord } from './record.js';
import { emptyCell } from './record.js';
import type { TableReading, TableResult } from './table-file.js';

/** Rows of one key at most: more are no list of one person's things, but a column that tells no one from another. */
export const MOST_ROWS_OF_KEY = 200;
const BLOCK = 500;

type Readings = Readonly<Record<string, ColumnReading>>;

/** The readings that were set for columns of items, said of the columns that they come from. */
const readingsOfRows = (readings: Readings): Readings => ({
  ...Object.fromEntries(
    Object.entries(readings).flatMap(([name, reading]) => {
      const [, base] = /^(.*\S) \d{1,3}$/.exec(name) ?? [];
      return base === undefined ? [] : [[base, reading] as const];
    }),
  ),
  ...readings,
});

/** Rows with the same key as one record each; rows without one stay by themselves. In the order in which the keys come. */
function groupRows(records: readonly SourceRecord[], key: number, where: string, name: string): SourceRecord[][] {
  const groups = new Map<string, SourceRecord[]>();
  for (const record of records) {
    const text = record.cells[key]?.text.trim() ?? '';
    // What is no text of a cell tells those without a key apart.
    const known = text === '' ? `\u0000${record.row}` : text;
    const group = groups.get(known);
    if (group) group.push(record);
    else groups.set(known, [record]);
    if (group && group.length > MOST_ROWS_OF_KEY)
      throw new MailbagError('sheet-key-too-common', { where, column: name, value: text, limit: MOST_ROWS_OF_KEY });
  }
  return [...groups.values()];
}

/** What a table becomes with one record for all rows of a key: columns in which such rows differ stand once for each, numbered. */
export function rowsByKey(
  columns: readonly Column[],
  records: readonly SourceRecord[],
  keyColumn: string,
  { where, readings = {} }: { where: string; readings?: Readings },
): { columns: Column[]; records: SourceRecord[]; gathered: number } {
  const key = columns.findIndex(({ name }) => name === keyColumn);
  if (key < 0) throw new MailbagError('sheet-no-such-column', { where, column: keyColumn });
  const groups = groupRows(records, key, where, keyColumn);
  const maximum = groups.reduce((longest, { length }) => Math.max(longest, length), 0);
  const differs = columns.map((_, index) =>
    groups.some(([first, ...others]) => others.some(({ cells }) => (cells[index]?.text ?? '') !== (first!.cells[index]?.text ?? ''))),
  );
  // Items stand one after the other where the first column that differs stood.
  const repeated = columns.flatMap((_, index) => (differs[index] ? [index] : []));
  const places: { index: number; item: number }[] = columns.flatMap((_, index) =>
    !differs[index]
      ? [{ index, item: 0 }]
      : index === repeated[0]
        ? Array.from({ length: maximum }, (_, item) => repeated.map((one) => ({ index: one, item }))).flat()
        : [],
  );
  if (places.length > COLUMN_LIMIT)
    throw new MailbagError('sheet-too-many-columns', { where, columns: places.length, limit: COLUMN_LIMIT });
  const wanted = places.map(({ index, item }) => (differs[index] ? `${columns[index]!.name} ${item + 1}` : columns[index]!.name));
  const { names, slugs } = headingNames(wanted);
  const profiles = places.map(() => new ColumnProfile());
  const made = groups.map((group): SourceRecord => ({
    row: group[0]!.row,
    cells: places.map(({ index, item }, at) => {
      const cell = group[item]?.cells[index] ?? emptyCell;
      profiles[at]!.see(cell);
      return cell;
    }),
  }));
  const told: Column[] = [];
  for (const [at, { index }] of places.entries()) {
    const reading = readings[names[at]!] ?? columns[index]!.reading;
    const { found } = columns[index]!;
    const column = profiles[at]!.done(names[at]!, slugs[at]!, reading, !told.some(({ kind }) => kind === 'key'));
    told.push({ ...column, ...(found && { found }) });
  }
  return { columns: told, records: made, gathered: records.length - made.length };
}

/**
 * Reads a table with one record for all rows of a key, where its reading says so; in one piece then, since the last row may belong to the first.
 * @param read reads the rows as they stand
 * @throws MailbagError sheet-key-too-common, sheet-no-such-column, sheet-too-many-columns, and as `read`
 */
export async function readByKey(
  read: (reading: TableReading, onRecords: (records: SourceRecord[]) => void) => Promise<TableResult>,
  { onePer, ...reading }: TableReading,
  where: string,
  onRecords: (records: SourceRecord[]) => void,
): Promise<TableResult> {
  if (onePer === undefined) return read(reading, onRecords);
  const rows: SourceRecord[] = [];
  const { columns: readings } = reading;
  const result = await read(
    { ...reading, ...(readings && { columns: readingsOfRows(readings) }) },
    (records) => void rows.push(...records),
  );
  const { columns, records, gathered } = rowsByKey(result.columns, rows, onePer, { where, ...(readings && { readings }) });
  for (let from = 0; from < records.length; from += BLOCK) onRecords(records.slice(from, from + BLOCK));
  return {
    columns,
    count: records.length,
    notes: [...result.notes, ...(gathered > 0 ? [{ code: 'rows-gathered' as const, count: gathered, names: [onePer] }] : [])],
    reading: { ...result.reading, ...(readings && { columns: readings }), onePer },
  };
}
