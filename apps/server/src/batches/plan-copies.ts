import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Cell, OutputPattern, SourceRecord } from '@mailbag/core';
import { compilePattern, copyCode, outputPattern, pathKey, patternData, patternExtras, searchText, uniquePath } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { dataPath } from '../platform/config.js';
import { foreignWords, readWords, writeWords } from '../work/foreign-words.js';
import { FrozenBatches } from './frozen-batches.js';
import type { FrozenMailing } from './frozen-mailing.js';

const BLOCK = 500;

interface Patterns {
  output: OutputPattern;
  recipient: { render(data: Record<string, unknown>): string };
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

/** Gives every copy of a batch its code, its recipient and its place in the archive before any is made. */
@Injectable()
export class PlanCopies {
  private readonly patterns = new Map<number, Patterns>();
  /** How often a path was wanted in this run, so that many copies of one name find their number at once. */
  private readonly wanted = new Map<string, number>();

  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
  ) {}

  /** Plans the next records. @returns whether all are planned */
  async planBlock(batchId: number): Promise<boolean> {
    const { number, mailing } = await this.batches.mailing(batchId);
    return this.transactions.run(async (manager) => {
      const [batch] = (await manager.query('SELECT mailingId, mailingName, records, plannedThrough, characters FROM batch WHERE id = ?', [
        batchId,
      ])) as {
        mailingId: number;
        mailingName: string;
        records: number;
        plannedThrough: number;
        characters: string;
      }[];
      const rows = (await manager.query(
        'SELECT ordinal, row, cells FROM batch_record WHERE batchId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?',
        [batchId, batch!.plannedThrough, BLOCK],
      )) as {
        ordinal: number;
        row: number;
        cells: string;
      }[];
      const characters = readWords(batch!.characters);
      if (batch!.plannedThrough === 0) foreignWords(JSON.stringify(mailing.templates.map(({ map }) => map)), characters);
      const planned: Planned[] = [];
      for (const { ordinal, row, cells } of rows) {
        const record: SourceRecord = { row, cells: JSON.parse(cells) as Cell[] };
        for (const cell of record.cells) foreignWords(cell.text, characters);
        planned.push(...this.planRecord(batchId, number, mailing, record, ordinal));
      }
      await this.findPlaces(manager, planned);
      await this.insert(manager, planned, { batchId, number, mailingId: batch!.mailingId, mailingName: batch!.mailingName });
      const through = batch!.plannedThrough + rows.length;
      await manager.query('UPDATE batch SET plannedThrough = ?, characters = ?, copies = copies + ? WHERE id = ?', [
        through,
        writeWords(characters),
        planned.length,
        batchId,
      ]);
      const isDone = through >= batch!.records;
      if (isDone) {
        this.patterns.delete(batchId);
        this.wanted.clear();
      }
      return isDone;
    });
  }

  private patternsOf(batchId: number, { plan, columns }: FrozenMailing): Patterns {
    const known = this.patterns.get(batchId);
    if (known) return known;
    const names = [...patternExtras, ...columns.map(({ slug }) => slug)];
    const patterns = {
      output: outputPattern(plan.output.folder, plan.output.file, names),
      recipient: compilePattern(plan.message.recipient, names),
    };
    this.patterns.set(batchId, patterns);
    return patterns;
  }

  private planRecord(batchId: number, batchNumber: number, mailing: FrozenMailing, record: SourceRecord, ordinal: number): Planned[] {
    const { output, recipient } = this.patternsOf(batchId, mailing);
    const at = (column: string | null | undefined): string =>
      record.cells[mailing.columns.findIndex(({ name }) => name === column)]?.text.trim() ?? '';
    const { paper, output: outputs } = mailing.plan;
    const wants = paper?.wantsColumn ? at(paper.wantsColumn).toLowerCase() : '';
    const wantsPaper = wants !== '' && paper!.wantsValues.some((value) => value.trim().toLowerCase() === wants);
    const metadata = outputs.metadata?.length
      ? JSON.stringify(Object.fromEntries(outputs.metadata.map((column) => [column, at(column)])))
      : null;
    const isProtected = Boolean(outputs.openPassword?.trim() || outputs.permissionsPassword?.trim());
    const today = new Date().toISOString().slice(0, 10);
    return mailing.templates.map((template, position) => {
      const code = copyCode(new Uint8Array(randomBytes(10)));
      const data = patternData(mailing.columns, record, {
        code,
        template: template.name,
        batch: String(batchNumber),
        number: String(ordinal + 1),
        today,
      });
      const { folders, file } = output.path(data);
      return {
        code,
        recordOrdinal: ordinal,
        row: record.row,
        position,
        template,
        recipient: recipient.render(data).replace(/\s+/g, ' ').trim().slice(0, 300),
        address: at(mailing.plan.message.addressColumn),
        wantsPaper,
        isProtected,
        metadata,
        path: [...folders, file].join('/'),
        search: record.cells.map((cell) => cell.text).join(' '),
      };
    });
  }

  /** Gives each planned copy a path that no other copy and no file has. */
  private async findPlaces(manager: EntityManager, planned: Planned[]): Promise<void> {
    const keys = JSON.stringify([...new Set(planned.map((copy) => pathKey(copy.path)))]);
    const rows = (await manager.query('SELECT pathKey FROM copy WHERE pathKey IN (SELECT value FROM json_each(?))', [keys])) as {
      pathKey: string;
    }[];
    const taken = new Set(rows.map((row) => row.pathKey));
    const asked = new Set<string>(planned.map((copy) => pathKey(copy.path)));
    const archive = dataPath('archive');
    const isTaken = async (path: string): Promise<boolean> => {
      const key = pathKey(path);
      if (taken.has(key) || existsSync(join(archive, path))) return true;
      // Wanted names were asked for together; a numbered one is asked for by itself.
      if (asked.has(key)) return false;
      return ((await manager.query('SELECT 1 FROM copy WHERE pathKey = ?', [key])) as unknown[]).length > 0;
    };
    for (const copy of planned) {
      const parts = copy.path.split('/');
      const base = pathKey(copy.path);
      let count = this.wanted.get(base) ?? 0;
      let path: string;
      do {
        count++;
        let left = count;
        // The count-th name of the row of names: each one before is said to be taken.
        path = uniquePath(parts.slice(0, -1), parts.at(-1)!, () => --left > 0);
      } while (await isTaken(path));
      this.wanted.set(base, count);
      taken.add(pathKey(path));
      copy.path = path;
    }
  }

  private async insert(
    manager: EntityManager,
    planned: readonly Planned[],
    { batchId, number, mailingId, mailingName }: { batchId: number; number: number; mailingId: number; mailingName: string },
  ): Promise<void> {
    const now = new Date().toISOString();
    const rows = planned.map((copy) => [
      copy.code,
      batchId,
      number,
      mailingId,
      mailingName,
      copy.recordOrdinal,
      copy.row,
      copy.position,
      copy.template.id,
      copy.template.name,
      copy.template.pages,
      copy.recipient,
      copy.address,
      copy.path,
      pathKey(copy.path),
      now,
      copy.wantsPaper ? 1 : 0,
      copy.isProtected ? 1 : 0,
      copy.metadata,
    ]);
    await manager.query(
      `INSERT INTO copy (code, batchId, batchNumber, mailingId, mailingName, recordOrdinal, row, position, templateId, templateName, pages, recipient, address, path, pathKey, state, since, size, wantsPaper, isProtected, metadata)
       SELECT ${Array.from({ length: 15 }, (_, index) => `json_extract(value, '$[${index}]')`).join(', ')}, 'planned', json_extract(value, '$[15]'), 0, json_extract(value, '$[16]'), json_extract(value, '$[17]'), json_extract(value, '$[18]') FROM json_each(?)`,
      [JSON.stringify(rows)],
    );
    const texts = planned.map((copy) => [
      copy.code,
      searchText(
        [
          copy.code,
          copy.code.replace(/-/g, ''),
          copy.recipient,
          copy.address,
          copy.path,
          mailingName,
          copy.template.name,
          copy.search,
        ].join(' '),
      ),
    ]);
    await manager.query(
      `INSERT INTO copy_words (rowid, text) SELECT copy.id, json_extract(one.value, '$[1]') FROM json_each(?) AS one JOIN copy ON copy.code = json_extract(one.value, '$[0]')`,
      [JSON.stringify(texts)],
    );
  }
}
