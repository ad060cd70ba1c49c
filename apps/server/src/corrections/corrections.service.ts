import { randomUUID } from 'node:crypto';
import type { CorrectionAnswer, ReplaceRequest, SourceSummary } from '@mailbag/contract';
import type { Cell, Column, SourceRecord } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, NumberedKeys, readingOf, recordKeys, typedText } from '@mailbag/core';
import { Injectable, Logger } from '@nestjs/common';
import { LiveService } from '../live/live.service.js';
import { MailingChecks } from '../mailings/mailing-checks.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import { SourcesService } from '../sources/sources.service.js';
import type { CorrectionRow, NewCorrection } from '../stores/correction.store.js';
import { correctionStore } from '../stores/correction.store.js';
import type { RecordRow } from '../stores/record.store.js';
import { recordStore } from '../stores/record.store.js';
import type { Principal } from '../platform/principal.js';

const answerOf = ({ id, row, recordKey, columnName, was, value, state, who, at, step }: CorrectionRow): CorrectionAnswer => ({
  id,
  row,
  recordKey,
  column: columnName,
  was: (JSON.parse(was) as Cell).text,
  value: (JSON.parse(value) as Cell).text,
  state,
  who,
  at,
  step,
});

export interface Change {
  row: number;
  column: string;
  value: string;
}

/** What a person types becomes what the column holds: a number, a date, or text. */
function typedFor(column: Column, text: string): Cell {
  const { kind } = column;
  if (kind === 'number' || kind === 'date') return typedText(text, { ...readingOf(column), kind });
  return kind === 'yes-no' ? typedText(text) : { text, value: text === '' ? null : text };
}

/** Values that can be changed in one step. */
const MOST_AT_ONCE = 10_000;

/** Records of a source, and of a change, up to which an answer waits for the checks. */
const SMALL = 5000;
const FEW = 200;

/** Values changed inside Mailbag, kept apart from the source's own. */
@Injectable()
export class CorrectionsService {
  private readonly logger = new Logger('corrections');

  constructor(
    private readonly transactions: Transactions,
    private readonly sources: SourcesService,
    private readonly mailings: MailingsService,
    private readonly checks: MailingChecks,
    private readonly live: LiveService,
  ) {}

  async list(sourceId: number): Promise<CorrectionAnswer[]> {
    await this.sources.detail(sourceId);
    const rows = await correctionStore.ofSource(this.transactions, sourceId);
    return rows.map(answerOf);
  }

  /**
   * Changes values, all or none. A value that becomes what the source has takes its correction back.
   * @returns how many were changed, and the step by which they are undone together
   * @throws MailbagError not-found, source-key-missing
   */
  async correct(sourceId: number, changes: readonly Change[], who: Principal): Promise<{ changed: number; step: string }> {
    const source = await this.sources.detail(sourceId);
    const step = randomUUID();
    const touched = await this.transactions.run(async (sql) => {
      const done: { ordinal: number; column: string }[] = [];
      let keys: Map<number, string> | null = null;
      const places = [...new Set(changes.map(({ row }) => row))];
      const records = new Map((await recordStore.recordsOfRows(sql, sourceId, places)).map((one) => [one.row, toPlaced(one)]));
      const active = await correctionStore.ofRows(sql, sourceId, places);
      const corrected = new Map(active.map((one) => [JSON.stringify([one.row, one.columnName]), one]));
      const changed = new Set<number>();
      const undone: number[] = [];
      const added: NewCorrection[] = [];
      // Of several changes of a cell the last one holds.
      for (const { row, column: name, value } of new Map(changes.map((one) => [JSON.stringify([one.row, one.column]), one])).values()) {
        const index = source.columns.findIndex((column) => column.name === name);
        if (index < 0) throw new MailbagError('source-key-missing', { source: source.name, column: name });
        const found = records.get(row);
        if (!found) throw new MailbagError('not-found', { what: t`record` });
        const { ordinal, record } = found;
        const now = record.cells[index]!;
        if (now.text === value) continue;
        const known = corrected.get(JSON.stringify([row, name]));
        const was = known ? (JSON.parse(known.was) as Cell) : now;
        if (known) undone.push(known.id);
        const wanted = value === was.text ? was : typedFor(source.columns[index]!, value);
        const recordKey = known?.recordKey ?? (keys ??= await this.keysOfRows(sql, source)).get(row) ?? `row ${row}`;
        if (wanted !== was) added.push({ recordKey, row, column: name, was, value: wanted });
        record.cells[index] = wanted;
        changed.add(row);
        done.push({ ordinal, column: name });
      }
      await correctionStore.undo(sql, undone);
      await correctionStore.add(sql, sourceId, added, { who, at: new Date().toISOString(), step });
      await recordStore.setCells(
        sql,
        sourceId,
        [...changed].map((row) => ({ ordinal: records.get(row)!.ordinal, row, cells: records.get(row)!.record.cells })),
      );
      return done;
    });
    await this.touched(sourceId, touched);
    return { changed: touched.length, step };
  }

  /** Takes corrections back, one or all of a step. @throws MailbagError correction-gone */
  async undo(sourceId: number, by: { id: number } | { step: string }, who: Principal): Promise<{ changed: number }> {
    const rows = await correctionStore.active(this.transactions, sourceId, by);
    if (rows.length === 0) throw new MailbagError('correction-gone');
    const changes = rows.map(({ row, columnName, was }) => ({ row, column: columnName, value: (JSON.parse(was) as Cell).text }));
    return { changed: (await this.correct(sourceId, changes, who)).changed };
  }

  /** Takes over the mends that the checks propose for a kind of finding. */
  async mend(
    mailingId: number,
    which: { code: string; column?: string; row?: number },
    who: Principal,
  ): Promise<{ changed: number; step: string }> {
    const { plan } = await this.mailings.detail(mailingId);
    if (plan.sourceId === null) throw new MailbagError('mailing-no-records', { mailing: plan.name });
    return this.correct(plan.sourceId, await this.checks.mends(mailingId, which), who);
  }

  /**
   * Puts a text in the place of another wherever it stands in the cells of a column or of all.
   * @throws MailbagError correction-too-many
   */
  async replace(
    sourceId: number,
    { find, replace, column, isWhole }: ReplaceRequest,
    who: Principal,
  ): Promise<{ changed: number; step: string }> {
    const { columns } = await this.sources.detail(sourceId);
    const changes: Change[] = [];
    for await (const records of this.sources.all(sourceId))
      for (const { row, cells } of records)
        cells.forEach(({ text }, index) => {
          const { name } = columns[index]!;
          if ((column !== null && name !== column) || (isWhole ? text !== find : !text.includes(find))) return;
          if (changes.push({ row, column: name, value: isWhole ? replace : text.replaceAll(find, () => replace) }) > MOST_AT_ONCE)
            throw new MailbagError('correction-too-many', { limit: MOST_AT_ONCE });
        });
    return this.correct(sourceId, changes, who);
  }

  /** The keys of all records by their rows, as the source itself has them: a corrected key is not what comes again. */
  private async keysOfRows(sql: Sql, { id, columns, keyColumn }: SourceSummary): Promise<Map<number, string>> {
    const index = columns.findIndex(({ name }) => name === keyColumn);
    const own = new Map<number, string>();
    if (keyColumn !== null)
      for (const { row, was } of await correctionStore.ofColumn(sql, id, keyColumn)) own.set(row, (JSON.parse(was) as Cell).text);
    const rows = await recordStore.textsOf(sql, id, Math.max(0, index));
    const keyOf = recordKeys([{ name: keyColumn ?? '' }], index < 0 ? null : keyColumn);
    const numbers = new NumberedKeys();
    return new Map(
      rows.map(({ row, text }) => [row, numbers.of(keyOf({ row, cells: [{ text: own.get(row) ?? text ?? '', value: null }] }))]),
    );
  }

  private async touched(sourceId: number, cells: readonly { ordinal: number; column: string }[]): Promise<void> {
    if (cells.length === 0) return;
    this.live.notify('source', sourceId);
    const ordinals = [...new Set(cells.map(({ ordinal }) => ordinal))];
    const done = this.checks.recheck(sourceId, {
      ordinals,
      columns: [...new Set(cells.map(({ column }) => column))],
    });
    // A person who mends a small source sees the findings go at once; a large one, and what changes a lot, is checked behind their back.
    if (ordinals.length <= FEW && (await this.sources.detail(sourceId)).count <= SMALL) await done;
    else done.catch((error: unknown) => this.logger.error(error));
  }
}

const toPlaced = ({ ordinal, row, cells }: RecordRow): { ordinal: number; record: SourceRecord } => ({
  ordinal,
  record: { row, cells: JSON.parse(cells) as Cell[] },
});
