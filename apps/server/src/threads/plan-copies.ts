import { randomBytes } from 'node:crypto';
import type { BatchContext, Cell, OutputPattern, Pattern, Row, SourceRecord } from '@mailbag/core';
import {
  SAMPLE_CODE,
  compilePattern,
  copiesFor,
  copyCode,
  fillContext,
  outputPattern,
  recordOf,
  rowReader,
  pathKey,
  searchText,
  uniquePath,
  recordKeys,
} from '@mailbag/core';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { frozenBatch } from '../frozen/frozen-mailing.js';
import { dataOf, patternNames } from '../frozen/message-of.js';
import { isPlaceTaken } from '../files/copy-file.js';
import { fileKey } from '../files/file-key.js';
import { readWords, wordsOf, writeWords } from './foreign-words.js';
import { paperWish } from './paper-wish.js';
import type { Tasks } from '../work/tasks.js';
import type { Sql } from '../persistence/sql.js';
import { batchStore } from '../stores/batch.store.js';
import type { PlannedCopy } from '../stores/copy-rows.js';
import { copyStore } from '../stores/copy.store.js';
import { inTransaction, threadSql } from './worker-database.js';

/** Records that are planned and committed together. */
const BLOCK = 500;
/** Milliseconds after which a slice of planning ends, so that a batch can be paused and a server stopped. */
const SLICE = 1500;

/** What is the same for every record of a batch. */
class Planner {
  private readonly output: OutputPattern;
  private readonly recipient: Pattern;
  private readonly names: ReadonlySet<string>;
  private readonly wantsPaper: (record: SourceRecord) => boolean;
  private readonly read: (record: SourceRecord) => Row;
  private readonly keyOf: (record: SourceRecord) => string;

  constructor(
    private readonly mailing: FrozenMailing,
    private readonly batch: BatchContext,
  ) {
    const { plan, columns } = mailing;
    const names = patternNames(columns);
    this.output = outputPattern(plan.output.folder, plan.output.file, names);
    this.recipient = compilePattern(plan.message.recipient, names);
    this.names = new Set([...this.output.names, ...this.recipient.names]);
    this.wantsPaper = paperWish(plan, columns);
    this.read = rowReader(columns);
    this.keyOf = recordKeys(columns, plan.keyColumn ?? null);
  }

  copiesOf(record: SourceRecord, ordinal: number): Omit<PlannedCopy, 'pathKey'>[] {
    const { plan, columns, templates } = this.mailing;
    const { output } = plan;
    const isProtected = Boolean(output.openPassword?.trim() || output.permissionsPassword?.trim());
    const wantsPaper = this.wantsPaper(record);
    const recordKey = this.keyOf(record);
    const row = this.read(record);
    const context = fillContext(this.batch, ordinal, SAMPLE_CODE);
    return templates.flatMap((template, position) => {
      return copiesFor(template, row, context).map((own, part) => {
        const at = (column: string | null | undefined): string => (column ? own.cell(column).text.trim() : '');
        const code = copyCode(new Uint8Array(randomBytes(10)));
        const place = { record: recordOf(own, columns), ordinal, code, batch: this.batch, template: template.name };
        const data = dataOf(columns, place, this.names);
        const { folders, file } = this.output.path(data);
        return {
          code,
          recordOrdinal: ordinal,
          recordKey,
          row: record.row,
          position,
          part,
          templateId: template.id,
          templateName: template.name,
          pages: template.pages,
          recipient: this.recipient.render(data).replace(/\s+/g, ' ').trim().slice(0, 300),
          address: at(plan.message.addressColumn),
          wantsPaper,
          isProtected,
          metadata: output.metadata?.length
            ? JSON.stringify(Object.fromEntries(output.metadata.map((column) => [column, at(column)])))
            : null,
          path: [...folders, file].join('/'),
          search: record.cells.map((cell) => cell.text).join(' '),
        };
      });
    });
  }
}

/** Gives each planned copy a path that no other copy and no file has. */
async function findPlaces(sql: Sql, planned: Omit<PlannedCopy, 'pathKey'>[]): Promise<void> {
  const asked = new Set(planned.map((copy) => pathKey(copy.path)));
  const taken = new Set((await copyStore.takenPlaces(sql, [...asked])).map((row) => row.pathKey));
  const isTaken = async (path: string): Promise<boolean> => {
    const key = pathKey(path);
    if (taken.has(key) || isPlaceTaken(fileKey('archive', path))) return true;
    // Wanted names were asked for together; a numbered one is asked for by itself.
    return !asked.has(key) && (await copyStore.isTaken(sql, key));
  };
  for (const copy of planned) {
    const parts = copy.path.split('/');
    // The count-th name of the row of names: each one before is said to be taken.
    const numbered = (count: number): string => {
      let left = count;
      return uniquePath(parts.slice(0, -1), parts.at(-1)!, () => --left > 0);
    };
    copy.path = numbered(await firstFree((count) => isTaken(numbered(count))));
    taken.add(pathKey(copy.path));
  }
}

/** The first number from 1 that is free, when all before it are taken: found in few steps, however many there are. */
async function firstFree(isTaken: (count: number) => Promise<boolean>): Promise<number> {
  if (!(await isTaken(1))) return 1;
  let low = 1;
  let high = 2;
  while (await isTaken(high)) [low, high] = [high, high * 2];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (await isTaken(middle)) low = middle;
    else high = middle;
  }
  return high;
}

let cached: { batchId: number; mailing: FrozenMailing; context: BatchContext; planner: Planner } | null = null;

/** Plans the next records. @returns whether all are planned */
function planBlock(batchId: number): Promise<boolean> {
  return inTransaction(async (sql) => {
    const batch = await batchStore.planning(sql, batchId);
    if (batch?.state !== 'planning') return false;
    if (cached?.batchId !== batchId) {
      const { mailing, context } = frozenBatch((await batchStore.frozen(sql, batchId))!);
      cached = { batchId, mailing, context, planner: new Planner(mailing, context) };
    }
    const { mailing, context, planner } = cached;
    const rows = await batchStore.recordsFrom(sql, batchId, batch.plannedThrough, BLOCK);
    const characters = readWords(batch.characters);
    const words = wordsOf(mailing, context, characters);
    if (batch.plannedThrough === 0) words.ofRules();
    const planned = rows.flatMap(({ ordinal, row, cells }) => {
      const record: SourceRecord = { row, cells: JSON.parse(cells) as Cell[] };
      words.ofRecord(record, ordinal);
      return planner.copiesOf(record, ordinal);
    });
    await findPlaces(sql, planned);
    const placed = planned.map((copy) => ({ ...copy, pathKey: pathKey(copy.path), search: searchedBy(copy, batch.mailingName) }));
    await copyStore.addPlanned(sql, batch, placed, new Date().toISOString());
    const through = batch.plannedThrough + rows.length;
    await batchStore.setPlanned(sql, batchId, through, writeWords(characters), planned.length);
    return through >= batch.records;
  });
}

/** What the search finds a copy by: what the ledger shows of it, and the values of its record. */
const searchedBy = ({ code, recipient, address, path, templateName, search }: Omit<PlannedCopy, 'pathKey'>, mailingName: string): string =>
  searchText([code, code.replace(/-/g, ''), recipient, address, path, mailingName, templateName, search].join(' '));

/** Gives copies of a batch their codes, recipients and places in the archive, for as long as a slice lasts. @returns whether all are planned */
export async function planCopies({ batchId }: Tasks['plan']['input']): Promise<Tasks['plan']['output']> {
  for (const end = Date.now() + SLICE; ;) {
    const isDone = await planBlock(batchId);
    if (isDone || (await batchStore.state(threadSql(), batchId))?.state !== 'planning' || Date.now() > end) return { isDone };
  }
}
