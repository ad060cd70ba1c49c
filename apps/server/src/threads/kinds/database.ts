import type { SourceRecord, TableReading } from '@mailbag/core';
import { Gatherer, ROW_LIMIT, typedText } from '@mailbag/core';
import { openDatabase } from '../../readers/open-database.js';
import { countingQuery } from '../../readers/query.js';
import type { DatabaseRow } from '../../readers/reader.js';
import type { Tasks } from '../../work/tasks.js';
import type { ReadingKind } from './kind.js';

/** Milliseconds that a query may take when a whole source is read, and when only its first rows are looked at. */
const READ_TIME = 60_000;
const EXCERPT_TIME = 12_000;
const EXCERPT_ROWS = 30;

/** Rows of a query as records: the names of its columns are the headings. */
function queryGatherer(where: string, reading: TableReading, onRecords: (records: SourceRecord[]) => void) {
  const gatherer = new Gatherer({ where, headingRow: 0, readings: reading.columns ?? {}, onRecords });
  let row = 0;
  let names: string[] = [];
  return {
    names(given: string[]): void {
      names = given;
      gatherer.see(
        0,
        names.map((text) => ({ text, value: text })),
        false,
      );
    },
    rows(rows: readonly DatabaseRow[]): void {
      for (const values of rows)
        gatherer.see(
          ++row,
          values.map((text, index) => typedText(text ?? '', reading.columns?.[names[index]!])),
          false,
        );
    },
    done: () => ({ ...gatherer.done(), count: gatherer.count }),
  };
}

/** What a query of a foreign database gives. */
export const databaseKind: ReadingKind<'database'> = {
  async read({ access, name, sql, parameters }, reading, onRecords) {
    const gatherer = queryGatherer(name, reading, onRecords);
    const isWhole = await openDatabase(access).read(
      sql,
      parameters,
      { rows: ROW_LIMIT, time: READ_TIME },
      (names) => gatherer.names(names),
      (rows) => gatherer.rows(rows),
    );
    const { columns, notes, count } = gatherer.done();
    if (!isWhole) notes.push({ code: 'rows-capped', count: 1, names: [String(ROW_LIMIT)] });
    return { columns, notes, count, reading };
  },
};

/** The first rows of a query and how many there are. */
export async function queryExcerpt({ access, sql, parameters }: Tasks['queryExcerpt']['input']): Promise<Tasks['queryExcerpt']['output']> {
  const database = openDatabase(access);
  const rows: string[][] = [];
  const gatherer = queryGatherer('The query', {}, (records) => rows.push(...records.map(({ cells }) => cells.map(({ text }) => text))));
  await database.read(
    sql,
    parameters,
    { rows: EXCERPT_ROWS, time: EXCERPT_TIME },
    (names) => gatherer.names(names),
    (block) => gatherer.rows(block),
  );
  let count: number | null = null;
  try {
    await database.read(
      countingQuery(sql),
      parameters,
      { rows: 1, time: 2000 },
      () => undefined,
      ([row]) => (count = Number(row?.[0] ?? 0)),
    );
  } catch {
    // Counting may take too long, or the query may not stand within another; the excerpt is good all the same.
  }
  if (rows.length === 0 && count === 0) return { columns: [], rows, count, notes: [] };
  const { columns, notes } = gatherer.done();
  return { columns, rows, count, notes };
}
