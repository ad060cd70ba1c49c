import type { Cell, Column, SourceChanges, SourceRecord } from '@mailbag/core';
import { ChangeWatch, NumberedKeys, recordKeys } from '@mailbag/core';
import { readRecords } from './kinds/registry.js';
import { blocksOfReading, recordAt } from './source-records.js';
import type { Tasks } from '../work/tasks.js';
import type { Sql } from '../persistence/sql.js';
import { correctionStore } from '../stores/correction.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import { sourceStore } from '../stores/source.store.js';
import { recordStore } from '../stores/record.store.js';
import { inTransaction, threadSql, writeAtOnce } from './worker-database.js';

const PROGRESS_EVERY = 5000;

type Input = Tasks['readSource']['input'];

/** Makes corrections again on what has just been read, and says which do not fit. Called within the transaction that swaps the readings. */
async function reapply(
  sql: Sql,
  sourceId: number,
  reading: number,
  columns: readonly Column[],
  ordinalOf: ReadonlyMap<string, number>,
  watch: ChangeWatch,
): Promise<void> {
  for (const { id, recordKey, row, columnName, was, value } of await correctionStore.activeOf(sql, sourceId)) {
    const ordinal = ordinalOf.get(recordKey);
    const index = columns.findIndex(({ name }) => name === columnName);
    const record = ordinal === undefined ? undefined : await recordAt(reading, ordinal);
    const unfit = async (why: string): Promise<void> => {
      watch.changes.corrections.unfit.push({ key: recordKey, column: columnName, value: (JSON.parse(value) as Cell).text, why });
      await correctionStore.settle(sql, id, 'unfit', record?.row ?? row);
    };
    if (!record || ordinal === undefined) {
      await unfit('the record is gone');
      continue;
    }
    if (index < 0) {
      await unfit('the column is gone');
      continue;
    }
    const now = record.cells[index]!;
    const [before, wanted] = [JSON.parse(was) as Cell, JSON.parse(value) as Cell];
    if (now.text === wanted.text && now.text !== before.text) {
      await correctionStore.settle(sql, id, 'fulfilled', record.row);
      watch.changes.corrections.fulfilled++;
    } else if (now.text !== before.text) await unfit(`the source now has “${now.text}”`);
    else {
      record.cells[index] = wanted;
      await recordStore.setCellsOf(sql, reading, ordinal, record.cells);
      await correctionStore.settle(sql, id, 'active', record.row);
      watch.changes.corrections.applied++;
    }
  }
}

/** Records that were left out of mailings stay left out, whatever row they stand in now. */
async function moveLeftOut(
  sql: Sql,
  sourceId: number,
  keyOfRow: ReadonlyMap<number, string>,
  rowOf: ReadonlyMap<string, number>,
): Promise<void> {
  for (const { id, plan } of await mailingStore.plansOfSource(sql, sourceId)) {
    const parsed = JSON.parse(plan) as { leftOut: number[] };
    const moved = parsed.leftOut.flatMap((row) => rowOf.get(keyOfRow.get(row) ?? '') ?? []);
    if (JSON.stringify(moved) !== JSON.stringify(parsed.leftOut)) await mailingStore.setPlan(sql, id, { ...parsed, leftOut: moved });
  }
}

/**
 * Reads a source into the database under the number of a reading of its own, in small transactions; when it is whole, the number takes the place of
 * the one before. A reading that fails or is cut off leaves the earlier records as they are.
 */
export async function readSource(input: Input): Promise<Tasks['readSource']['output']> {
  const { sourceId, before } = input;
  const earlier = await recordStore.readingOf(threadSql(), sourceId);
  const number = await inTransaction((sql) => recordStore.startReading(sql, sourceId, earlier));
  let ordinal = 0;
  let told = 0;
  // Files are read in one go, so what was read is written before more comes.
  const write = (records: SourceRecord[]): void => {
    const statements = records.map(({ row, cells }) => recordStore.addRecord(number, ordinal++, row, cells));
    if (ordinal - told >= PROGRESS_EVERY) statements.push(sourceStore.setProgress(sourceId, (told = ordinal)));
    writeAtOnce(statements);
  };
  const { columns, notes, count, reading } = await readRecords(input.from, input.reading, write);
  const keyColumn =
    input.keyColumn !== null && columns.some(({ name }) => name === input.keyColumn)
      ? input.keyColumn
      : (reading.onePer ?? columns.find(({ kind }) => kind === 'key')?.name ?? null);
  const take = (sql: Sql, changes: SourceChanges | null): Promise<void> =>
    sourceStore.take(sql, sourceId, {
      readingId: number,
      count,
      columns,
      notes,
      reading,
      keyColumn,
      changes,
      readAt: new Date().toISOString(),
    });
  if (earlier === null || before.length === 0) await inTransaction((sql) => take(sql, null));
  else await replace({ sourceId, earlier, number, before, columns, keyColumn }, take);
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
async function replace(
  { sourceId, earlier, number, before, columns, keyColumn }: Replacing,
  take: (sql: Sql, changes: SourceChanges) => Promise<void>,
): Promise<void> {
  const watch = new ChangeWatch(before, columns, keyColumn);
  const keyOfRow = new Map<number, string>();
  const uncorrected = await uncorrectedCells(sourceId, before);
  const keyBefore = recordKeys(before, keyColumn);
  const numbersBefore = new NumberedKeys();
  for await (const { records } of blocksOfReading(earlier)) {
    // Corrections are no changes of the source.
    const own = records.map((record) => withCells(record, uncorrected.get(record.row)));
    for (const record of own) keyOfRow.set(record.row, numbersBefore.of(keyBefore(record)));
    watch.was(own);
  }
  const ordinalOf = new Map<string, number>();
  const rowOf = new Map<string, number>();
  const keyNow = recordKeys(columns, keyColumn);
  const numbers = new NumberedKeys();
  for await (const { first, records } of blocksOfReading(number)) {
    records.forEach((record, index) => {
      const key = numbers.of(keyNow(record));
      ordinalOf.set(key, first + index);
      rowOf.set(key, record.row);
    });
    watch.now(records);
  }
  const recordsBefore = new Map<number, SourceRecord>();
  for (const { ordinal: at } of watch.differing) {
    const record = await recordAt(earlier, at);
    if (record) recordsBefore.set(at, withCells(record, uncorrected.get(record.row)));
  }
  const changes = watch.done((at) => recordsBefore.get(at));
  await inTransaction(async (sql) => {
    await reapply(sql, sourceId, number, columns, ordinalOf, watch);
    await moveLeftOut(sql, sourceId, keyOfRow, rowOf);
    await take(sql, changes);
    await recordStore.dropReading(sql, earlier);
  });
}

const withCells = (record: SourceRecord, cells: ReadonlyMap<number, Cell> | undefined): SourceRecord =>
  cells ? { ...record, cells: record.cells.map((cell, index) => cells.get(index) ?? cell) } : record;

/** The source's own values where corrections hold, by row and column. */
async function uncorrectedCells(sourceId: number, columns: readonly Column[]): Promise<Map<number, Map<number, Cell>>> {
  // The first of several holds what the source has itself.
  const rows = (await correctionStore.activeOf(threadSql(), sourceId)).reverse();
  const cells = new Map<number, Map<number, Cell>>();
  for (const { row, columnName, was } of rows) {
    const index = columns.findIndex(({ name }) => name === columnName);
    if (index >= 0) cells.set(row, (cells.get(row) ?? new Map<number, Cell>()).set(index, JSON.parse(was) as Cell));
  }
  return cells;
}
