import type { Cell, Column, SourceRecord } from '@mailbag/core';
import { recordKeys } from '@mailbag/core';
import type { FrozenBatches } from '../frozen/frozen-batches.js';
import type { Sql } from '../persistence/sql.js';
import type { SourcesService } from '../sources/sources.service.js';
import type { LinkedCopy } from '../stores/personal.store.js';
import { recordStore } from '../stores/record.store.js';

/** The record of a copy: as its source has it now, or as it was when the batch began where the source has it no longer. */
export interface LinkedRecord {
  columns: Column[];
  record: SourceRecord;
  /** Where changes can be taken over; null: the source has the record no longer. */
  sourceId: number | null;
}

/** @throws MailbagError not-found when its batch has forgotten it */
export async function linkedRecord(sql: Sql, sources: SourcesService, batches: FrozenBatches, copy: LinkedCopy): Promise<LinkedRecord> {
  const { mailing } = await batches.mailing(copy.batchId);
  const { sourceId } = mailing.plan;
  const source = sourceId === null ? null : await sources.detail(sourceId).catch(() => null);
  if (source?.state === 'ready' && sourceId !== null) {
    const found = await recordStore.recordOfRow(sql, sourceId, copy.row);
    const record = found && { row: found.row, cells: JSON.parse(found.cells) as Cell[] };
    if (record && recordKeys(source.columns, mailing.plan.keyColumn ?? null)(record).toLowerCase() === copy.recordKey.toLowerCase())
      return { columns: source.columns, record, sourceId };
  }
  return { columns: mailing.columns, record: await batches.record(copy.batchId, copy.recordOrdinal), sourceId: null };
}
