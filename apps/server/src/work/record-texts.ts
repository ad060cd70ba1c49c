import type { Cell } from '@mailbag/core';
import { MailbagError } from '@mailbag/core';
import type { FrozenBatch } from '../frozen/frozen-mailing.js';
import { frozenBatch } from '../frozen/frozen-mailing.js';
import type { Letter, LetterPattern, RecordPlace } from '../delivery/message-of.js';
import { letterPattern, passwordPattern } from '../delivery/message-of.js';
import { postalPattern } from '../paper/paper-of.js';
import type { LetterOfBatch, Tasks } from './tasks.js';
import { workerDatabase } from './worker-database.js';

/** A record of a batch, and what its patterns are told beside its values. */
export interface RecordOfBatch {
  batchId: number;
  ordinal: number;
  code: string;
  /** Name of the template; empty: the first one. */
  template: string;
}

/** As batches do not change, but for what reminders say, the last one is kept. */
let lastBatch: { id: number; batch: FrozenBatch; letters: LetterPattern | null } | null = null;

function batchOf(id: number): NonNullable<typeof lastBatch> {
  if (lastBatch?.id === id) return lastBatch;
  const row = workerDatabase().prepare('SELECT number, today, frozen FROM batch WHERE id = ?').get([id]) as
    { number: number; today: string; frozen: string } | undefined;
  if (!row) throw new MailbagError('not-found', { what: 'batch' });
  return (lastBatch = { id, batch: frozenBatch(row), letters: null });
}

/** Null: the record was deleted when its time was over. */
function findPlace({ batchId, ordinal, code, template }: RecordOfBatch): RecordPlace | null {
  const row = workerDatabase().prepare('SELECT row, cells FROM batch_record WHERE batchId = ? AND ordinal = ?').get([batchId, ordinal]) as
    { row: number; cells: string } | undefined;
  return row && row.cells !== '[]'
    ? { record: { row: row.row, cells: JSON.parse(row.cells) as Cell[] }, ordinal, code, batch: batchOf(batchId).batch.context, template }
    : null;
}

function placeOf(record: RecordOfBatch): RecordPlace {
  const place = findPlace(record);
  if (!place) throw new MailbagError('record-over-time');
  return place;
}

/** @throws MailbagError pattern-*, record-over-time */
export function letter({ reminder, ...record }: LetterOfBatch): Letter {
  const place = placeOf(record);
  const kept = batchOf(record.batchId);
  if (!reminder) return (kept.letters ??= letterPattern(kept.batch.mailing)).letter(place);
  const { plan } = kept.batch.mailing;
  const own = letterPattern({ ...kept.batch.mailing, plan: { ...plan, message: { ...plan.message, reminder } } });
  return (own.reminder ?? own.letter)(place);
}

/** @throws MailbagError pattern-*, record-over-time */
export function openPassword(record: Tasks['openPassword']['input']): string {
  const { plan, columns } = batchOf(record.batchId).batch.mailing;
  return passwordPattern(plan, columns)?.(placeOf(record)).open ?? '';
}

/** @throws MailbagError pattern-* */
export function postalAddresses({ batchId, records }: Tasks['postalAddresses']['input']): Tasks['postalAddresses']['output'] {
  const { plan, columns } = batchOf(batchId).batch.mailing;
  const address = postalPattern(plan, columns);
  return records.map((record) => {
    const place = findPlace({ batchId, ...record });
    return place && address(place);
  });
}
