import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { BatchContext, Cell, OutputPattern, Pattern, SourceRecord } from '@mailbag/core';
import { compilePattern, copyCode, outputPattern, pathKey, searchText, uniquePath } from '@mailbag/core';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { frozenBatch } from '../frozen/frozen-mailing.js';
import { dataOf, patternNames } from '../delivery/message-of.js';
import { dataPath } from '../platform/config.js';
import { foreignWords, readWords, writeWords } from './foreign-words.js';
import { paperWish } from './paper-wish.js';
import type { Tasks } from './tasks.js';
import { inTransaction, workerDatabase } from './worker-database.js';

/** Records that are planned and committed together. */
const BLOCK = 500;
/** Milliseconds after which a slice of planning ends, so that a batch can be paused and a server stopped. */
const SLICE = 1500;

interface BatchRow {
  number: number;
  mailingId: number;
  mailingName: string;
  state: string;
  records: number;
  plannedThrough: number;
  characters: string;
}
interface Planned {
  code: string;
  recordOrdinal: number;
  row: number;
  position: number;
  template: FrozenMailing['templates'][number];
  recipient: string;
  address: string;
  wantsPaper: boolean;
  isProtected: boolean;
  metadata: string | null;
  path: string;
  search: string;
}

/** What is the same for every record of a batch. */
class Planner {
  private readonly output: OutputPattern;
  private readonly recipient: Pattern;
  private readonly names: ReadonlySet<string>;
  private readonly wantsPaper: (record: SourceRecord) => boolean;

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
  }

  copiesOf(record: SourceRecord, ordinal: number): Planned[] {
    const { plan, columns, templates } = this.mailing;
    const at = (column: string | null | undefined): string =>
      record.cells[columns.findIndex(({ name }) => name === column)]?.text.trim() ?? '';
    const { output } = plan;
    const metadata = output.metadata?.length
      ? JSON.stringify(Object.fromEntries(output.metadata.map((column) => [column, at(column)])))
      : null;
    const isProtected = Boolean(output.openPassword?.trim() || output.permissionsPassword?.trim());
    const wantsPaper = this.wantsPaper(record);
    return templates.map((template, position) => {
      const code = copyCode(new Uint8Array(randomBytes(10)));
      const data = dataOf(columns, { record, ordinal, code, batch: this.batch, template: template.name }, this.names);
      const { folders, file } = this.output.path(data);
      return {
        code,
        recordOrdinal: ordinal,
        row: record.row,
        position,
        template,
        recipient: this.recipient.render(data).replace(/\s+/g, ' ').trim().slice(0, 300),
        address: at(plan.message.addressColumn),
        wantsPaper,
        isProtected,
        metadata,
        path: [...folders, file].join('/'),
        search: record.cells.map((cell) => cell.text).join(' '),
      };
    });
  }
}

/** Gives each planned copy a path that no other copy and no file has. */
function findPlaces(planned: Planned[]): void {
  const database = workerDatabase();
  const keys = JSON.stringify([...new Set(planned.map((copy) => pathKey(copy.path)))]);
  const rows = database.prepare('SELECT pathKey FROM copy WHERE pathKey IN (SELECT value FROM json_each(?))').all([keys]) as {
    pathKey: string;
  }[];
  const taken = new Set(rows.map((row) => row.pathKey));
  const asked = new Set<string>(planned.map((copy) => pathKey(copy.path)));
  const archive = dataPath('archive');
  const select = database.prepare('SELECT 1 FROM copy WHERE pathKey = ?');
  const isTaken = (path: string): boolean => {
    const key = pathKey(path);
    if (taken.has(key) || existsSync(join(archive, path))) return true;
    // Wanted names were asked for together; a numbered one is asked for by itself.
    return !asked.has(key) && select.all([key]).length > 0;
  };
  for (const copy of planned) {
    const parts = copy.path.split('/');
    // The count-th name of the row of names: each one before is said to be taken.
    const numbered = (count: number): string => {
      let left = count;
      return uniquePath(parts.slice(0, -1), parts.at(-1)!, () => --left > 0);
    };
    copy.path = numbered(firstFree((count) => isTaken(numbered(count))));
    taken.add(pathKey(copy.path));
  }
}

/** The first number from 1 that is free, when all before it are taken: found in few steps, however many there are. */
function firstFree(isTaken: (count: number) => boolean): number {
  if (!isTaken(1)) return 1;
  let low = 1;
  let high = 2;
  while (isTaken(high)) [low, high] = [high, high * 2];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (isTaken(middle)) low = middle;
    else high = middle;
  }
  return high;
}

/** Writes planned copies and what the search finds them by: in two statements, since a call for each copy takes longer than writing it. */
function insert(planned: readonly Planned[], batchId: number, { number, mailingId, mailingName }: BatchRow): void {
  const database = workerDatabase();
  const now = new Date().toISOString();
  const rows = planned.map((one) => [
    one.code,
    one.recordOrdinal,
    one.row,
    one.position,
    one.template.id,
    one.template.name,
    one.template.pages,
    one.recipient,
    one.address,
    one.path,
    pathKey(one.path),
    one.wantsPaper ? 1 : 0,
    one.isProtected ? 1 : 0,
    one.metadata,
  ]);
  const part = (from: number, to: number): string =>
    Array.from({ length: to - from }, (_, index) => `json_extract(value, '$[${from + index}]')`).join(', ');
  database
    .prepare(
      `INSERT INTO copy (code, batchId, batchNumber, mailingId, mailingName, state, since, size, recordOrdinal, row, position, templateId, templateName, pages, recipient, address, path, pathKey, wantsPaper, isProtected, metadata)
       SELECT json_extract(value, '$[0]'), ?, ?, ?, ?, 'planned', ?, 0, ${part(1, 14)} FROM json_each(?)`,
    )
    .run([batchId, number, mailingId, mailingName, now, JSON.stringify(rows)]);
  const texts = planned.map(({ code, recipient, address, path, template, search }) => [
    code,
    searchText([code, code.replace(/-/g, ''), recipient, address, path, mailingName, template.name, search].join(' ')),
  ]);
  database
    .prepare(
      "INSERT INTO copy_words (rowid, text) SELECT copy.id, json_extract(one.value, '$[1]') FROM json_each(?) AS one CROSS JOIN copy ON copy.code = json_extract(one.value, '$[0]')",
    )
    .run([JSON.stringify(texts)]);
}

let kept: { batchId: number; mailing: FrozenMailing; planner: Planner } | null = null;

/** Plans the next records. @returns whether all are planned */
function planBlock(batchId: number): boolean {
  const database = workerDatabase();
  return inTransaction(() => {
    const [batch] = database
      .prepare('SELECT number, mailingId, mailingName, state, records, plannedThrough, characters FROM batch WHERE id = ?')
      .all([batchId]) as BatchRow[];
    if (batch?.state !== 'planning') return false;
    if (kept?.batchId !== batchId) {
      const [row] = database.prepare('SELECT number, today, frozen FROM batch WHERE id = ?').all([batchId]) as [
        { number: number; today: string; frozen: string },
      ];
      const { mailing, context } = frozenBatch(row);
      kept = { batchId, mailing, planner: new Planner(mailing, context) };
    }
    const { mailing, planner } = kept;
    const rows = database
      .prepare('SELECT ordinal, row, cells FROM batch_record WHERE batchId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?')
      .all([batchId, batch.plannedThrough, BLOCK]) as { ordinal: number; row: number; cells: string }[];
    const characters = readWords(batch.characters);
    if (batch.plannedThrough === 0) foreignWords(JSON.stringify(mailing.templates.map(({ map }) => map)), characters);
    const planned = rows.flatMap(({ ordinal, row, cells }) => {
      const record: SourceRecord = { row, cells: JSON.parse(cells) as Cell[] };
      for (const cell of record.cells) foreignWords(cell.text, characters);
      return planner.copiesOf(record, ordinal);
    });
    findPlaces(planned);
    insert(planned, batchId, batch);
    const through = batch.plannedThrough + rows.length;
    database
      .prepare('UPDATE batch SET plannedThrough = ?, characters = ?, copies = copies + ? WHERE id = ?')
      .run([through, writeWords(characters), planned.length, batchId]);
    return through >= batch.records;
  });
}

/** Gives copies of a batch their codes, recipients and places in the archive, for as long as a slice lasts. @returns whether all are planned */
export function planCopies({ batchId }: Tasks['plan']['input']): Tasks['plan']['output'] {
  for (const end = Date.now() + SLICE; ;) {
    const isDone = planBlock(batchId);
    const [batch] = workerDatabase().prepare('SELECT state FROM batch WHERE id = ?').all([batchId]) as { state: string }[];
    if (isDone || batch?.state !== 'planning' || Date.now() > end) return { isDone };
  }
}
