import type { Cell, Column, SourceChanges, SourceRecord, TableResult } from '@mailbag/core';
import { ChangeWatch, Gatherer, NumberedKeys, ROW_LIMIT, readFiles, recordKeys, typedText } from '@mailbag/core';
import { tableFile } from '@mailbag/host';
import { openDatabase } from '../databases/read/open-database.js';
import type { DatabaseRow } from '../databases/read/reader.js';
import { blocksOfReading, readingOf, recordAt } from './source-records.js';
import type { Tasks } from './tasks.js';
import { knownFields } from './known-fields.js';
import { inTransaction, workerDatabase } from './worker-database.js';

/** Milliseconds that a query may take when a whole source is read, and when only its first rows are looked at. */
const READ_TIME = 60_000;
const EXCERPT_TIME = 12_000;
const EXCERPT_ROWS = 30;
const PROGRESS_EVERY = 5000;

type Input = Tasks['readSource']['input'];

/** Rows of a query as records: the names of its columns are the headings. */
function queryGatherer(where: string, reading: Input['reading'], onRecords: (records: SourceRecord[]) => void) {
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

async function readInto(input: Input, onRecords: (records: SourceRecord[]) => void): Promise<TableResult> {
  const { files, query, reading } = input;
  if (!query)
    return readFiles(
      files.map(
        ({ path, file }) =>
          () =>
            tableFile(path, file, knownFields()),
      ),
      reading,
      onRecords,
    );
  const gatherer = queryGatherer(query.name, reading, onRecords);
  const isWhole = await openDatabase(query.access).read(
    query.sql,
    query.parameters,
    { rows: ROW_LIMIT, time: READ_TIME },
    (names) => gatherer.names(names),
    (rows) => gatherer.rows(rows),
  );
  const { columns, notes, count } = gatherer.done();
  if (!isWhole) notes.push({ code: 'rows-capped', count: 1, names: [String(ROW_LIMIT)] });
  return { columns, notes, count, reading };
}

interface Kept {
  id: number;
  recordKey: string;
  row: number;
  columnName: string;
  was: string;
  value: string;
}

/** Makes corrections again on what has just been read, and says which do not fit. Called within the transaction that swaps the readings. */
function reapply(
  sourceId: number,
  reading: number,
  columns: readonly Column[],
  ordinalOf: ReadonlyMap<string, number>,
  watch: ChangeWatch,
): void {
  const database = workerDatabase();
  const kept = database
    .prepare("SELECT id, recordKey, row, columnName, was, value FROM correction WHERE sourceId = ? AND state = 'active' ORDER BY id")
    .all([sourceId]) as Kept[];
  const update = database.prepare('UPDATE source_record SET cells = ? WHERE readingId = ? AND ordinal = ?');
  const settle = database.prepare('UPDATE correction SET state = ?, row = ? WHERE id = ?');
  for (const { id, recordKey, row, columnName, was, value } of kept) {
    const ordinal = ordinalOf.get(recordKey);
    const index = columns.findIndex(({ name }) => name === columnName);
    const record = ordinal === undefined ? undefined : recordAt(reading, ordinal);
    const unfit = (why: string): void => {
      watch.changes.corrections.unfit.push({ key: recordKey, column: columnName, value: (JSON.parse(value) as Cell).text, why });
      settle.run(['unfit', record?.row ?? row, id]);
    };
    if (!record || ordinal === undefined) {
      unfit('the record is gone');
      continue;
    }
    if (index < 0) {
      unfit('the column is gone');
      continue;
    }
    const now = record.cells[index]!;
    const [before, wanted] = [JSON.parse(was) as Cell, JSON.parse(value) as Cell];
    if (now.text === wanted.text && now.text !== before.text) {
      settle.run(['fulfilled', record.row, id]);
      watch.changes.corrections.fulfilled++;
    } else if (now.text !== before.text) unfit(`the source now has “${now.text}”`);
    else {
      record.cells[index] = wanted;
      update.run([JSON.stringify(record.cells), reading, ordinal]);
      settle.run(['active', record.row, id]);
      watch.changes.corrections.applied++;
    }
  }
}

/** Records that were left out of mailings stay left out, whatever row they stand in now. */
function moveLeftOut(sourceId: number, keyOfRow: ReadonlyMap<number, string>, rowOf: ReadonlyMap<string, number>): void {
  const database = workerDatabase();
  const mailings = database.prepare("SELECT id, plan FROM mailing WHERE json_extract(plan, '$.sourceId') = ?").all([sourceId]) as {
    id: number;
    plan: string;
  }[];
  for (const { id, plan } of mailings) {
    const parsed = JSON.parse(plan) as { leftOut: number[] };
    const moved = parsed.leftOut.flatMap((row) => rowOf.get(keyOfRow.get(row) ?? '') ?? []);
    if (JSON.stringify(moved) === JSON.stringify(parsed.leftOut)) continue;
    database
      .prepare('UPDATE mailing SET plan = ?, version = version + 1 WHERE id = ?')
      .run([JSON.stringify({ ...parsed, leftOut: moved }), id]);
  }
}

/**
 * Reads a source into the database under the number of a reading of its own, in small transactions; when it is whole, the number takes the place of
 * the one before. A reading that fails or is cut off leaves the earlier records as they are.
 */
export async function readSource(input: Input): Promise<Tasks['readSource']['output']> {
  const { sourceId, before } = input;
  const database = workerDatabase();
  const earlier = readingOf(sourceId);
  const number = startReading(sourceId, earlier);
  const insert = database.prepare('INSERT INTO source_record (readingId, ordinal, row, cells) VALUES (?, ?, ?, ?)');
  let ordinal = 0;
  let told = 0;
  const write = (records: SourceRecord[]): void =>
    inTransaction(() => {
      for (const record of records) insert.run([number, ordinal++, record.row, JSON.stringify(record.cells)]);
      if (ordinal - told < PROGRESS_EVERY) return;
      told = ordinal;
      database.prepare('UPDATE source SET progress = ? WHERE id = ?').run([ordinal, sourceId]);
    });
  const { columns, notes, count, reading } = await readInto(input, write);
  const keyColumn =
    input.keyColumn !== null && columns.some(({ name }) => name === input.keyColumn)
      ? input.keyColumn
      : (columns.find(({ kind }) => kind === 'key')?.name ?? null);
  const take = (changes: SourceChanges | null): void => {
    database
      .prepare(
        `UPDATE source SET readingId = ?, state = 'ready', error = NULL, attempts = 0, count = ?, columns = ?, notes = ?, reading = ?, keyColumn = ?, changes = ?, readAt = ?
           WHERE id = ?`,
      )
      .run([
        number,
        count,
        JSON.stringify(columns),
        JSON.stringify(notes),
        JSON.stringify(reading),
        keyColumn,
        changes && JSON.stringify(changes),
        new Date().toISOString(),
        sourceId,
      ]);
  };
  if (earlier === null || before.length === 0) inTransaction(() => take(null));
  else replace({ sourceId, earlier, number, before, columns, keyColumn }, take);
}

/** A number for the records to come; what an earlier try has left under another goes. */
function startReading(sourceId: number, earlier: number | null): number {
  const database = workerDatabase();
  return inTransaction(() => {
    database.prepare('DELETE FROM source_reading WHERE sourceId = ? AND id IS NOT ?').run([sourceId, earlier]);
    const [{ id }] = database.prepare('INSERT INTO source_reading (sourceId) VALUES (?) RETURNING id').all([sourceId]) as [{ id: number }];
    return id;
  });
}

interface Replacing {
  sourceId: number;
  earlier: number;
  number: number;
  before: readonly Column[];
  columns: readonly Column[];
  keyColumn: string | null;
}

/** Puts a new reading in the place of an earlier one: what has changed is found out, corrections hold again, records that were left out stay so. */
function replace({ sourceId, earlier, number, before, columns, keyColumn }: Replacing, take: (changes: SourceChanges) => void): void {
  const watch = new ChangeWatch(before, columns, keyColumn);
  const keyOfRow = new Map<number, string>();
  const uncorrected = uncorrectedCells(sourceId, before);
  const keyBefore = recordKeys(before, keyColumn);
  const numbersBefore = new NumberedKeys();
  for (const { records } of blocksOfReading(earlier)) {
    // Corrections are no changes of the source.
    const own = records.map((record) => withCells(record, uncorrected.get(record.row)));
    for (const record of own) keyOfRow.set(record.row, numbersBefore.of(keyBefore(record)));
    watch.was(own);
  }
  const ordinalOf = new Map<string, number>();
  const rowOf = new Map<string, number>();
  const keyNow = recordKeys(columns, keyColumn);
  const numbers = new NumberedKeys();
  for (const { first, records } of blocksOfReading(number)) {
    records.forEach((record, index) => {
      const key = numbers.of(keyNow(record));
      ordinalOf.set(key, first + index);
      rowOf.set(key, record.row);
    });
    watch.now(records);
  }
  const changes = watch.done((at) => {
    const record = recordAt(earlier, at);
    return record && withCells(record, uncorrected.get(record.row));
  });
  inTransaction(() => {
    reapply(sourceId, number, columns, ordinalOf, watch);
    moveLeftOut(sourceId, keyOfRow, rowOf);
    take(changes);
    workerDatabase().prepare('DELETE FROM source_reading WHERE id = ?').run([earlier]);
  });
}

const withCells = (record: SourceRecord, cells: ReadonlyMap<number, Cell> | undefined): SourceRecord =>
  cells ? { ...record, cells: record.cells.map((cell, index) => cells.get(index) ?? cell) } : record;

/** The source's own values where corrections hold, by row and column. */
function uncorrectedCells(sourceId: number, columns: readonly Column[]): Map<number, Map<number, Cell>> {
  const rows = workerDatabase()
    .prepare("SELECT row, columnName, was FROM correction WHERE sourceId = ? AND state = 'active' ORDER BY id DESC")
    .all([sourceId]) as Kept[];
  const cells = new Map<number, Map<number, Cell>>();
  for (const { row, columnName, was } of rows) {
    const index = columns.findIndex(({ name }) => name === columnName);
    if (index >= 0) cells.set(row, (cells.get(row) ?? new Map<number, Cell>()).set(index, JSON.parse(was) as Cell));
  }
  return cells;
}

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
    const counting = `SELECT COUNT(*) AS n FROM (${sql.trim().replace(/;\s*$/, '')}\n) AS counted`;
    await database.read(
      counting,
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
