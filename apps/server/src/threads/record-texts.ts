import type { Cell } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError } from '@mailbag/core';
import type { FrozenBatch } from '../frozen/frozen-mailing.js';
import { frozenBatch } from '../frozen/frozen-mailing.js';
import type { Letter, LetterPattern, RecordPlace } from '../frozen/message-of.js';
import { letterPattern, passwordPattern } from '../frozen/message-of.js';
import { postalPattern } from '../frozen/paper-of.js';
import type { LetterOfBatch, RecordOfBatch, Tasks } from '../work/tasks.js';
import { copyStore } from '../stores/copy.store.js';
import { batchStore } from '../stores/batch.store.js';
import { threadSql } from './worker-database.js';

/** As batches do not change, but for what reminders say, the last one is kept. */
let lastBatch: { id: number; batch: FrozenBatch; letters: LetterPattern | null } | null = null;

async function batchOf(id: number): Promise<NonNullable<typeof lastBatch>> {
  if (lastBatch?.id === id) return lastBatch;
  const row = await batchStore.frozen(threadSql(), id);
  if (!row) throw new MailbagError('not-found', { what: t`batch` });
  return (lastBatch = { id, batch: frozenBatch(row), letters: null });
}

/** Null: the record was deleted when its time was over. */
async function findPlace({ batchId, ordinal, code, template }: RecordOfBatch): Promise<RecordPlace | null> {
  const row = await batchStore.record(threadSql(), batchId, ordinal);
  if (!row || row.cells === '[]') return null;
  const { context } = (await batchOf(batchId)).batch;
  return { record: { row: row.row, cells: JSON.parse(row.cells) as Cell[] }, ordinal, code, batch: context, template };
}

async function placeOf(record: RecordOfBatch): Promise<RecordPlace> {
  const place = await findPlace(record);
  if (!place) throw new MailbagError('record-over-time');
  return place;
}

/** @throws MailbagError pattern-*, record-over-time */
export async function letter({ reminder, ...record }: LetterOfBatch): Promise<Letter> {
  const cached = await batchOf(record.batchId);
  const { subject, body } = cached.batch.mailing.plan.message;
  const asks = `${subject} ${body} ${JSON.stringify(cached.batch.mailing.plan.message.reminder ?? '')}`.includes('replace');
  const place = { ...(await placeOf(record)), ...(asks && { replaces: (await copyStore.replacedBy(threadSql(), record.code)) ?? null }) };
  if (!reminder) return (cached.letters ??= letterPattern(cached.batch.mailing)).letter(place);
  const { plan } = cached.batch.mailing;
  const own = letterPattern({ ...cached.batch.mailing, plan: { ...plan, message: { ...plan.message, reminder } } });
  return (own.reminder ?? own.letter)(place);
}

/** @throws MailbagError pattern-*, record-over-time */
export async function openPassword(record: Tasks['openPassword']['input']): Promise<string> {
  const { plan, columns } = (await batchOf(record.batchId)).batch.mailing;
  return passwordPattern(plan, columns)?.(await placeOf(record)).open ?? '';
}

/** @throws MailbagError pattern-* */
export async function postalAddresses({
  batchId,
  records,
}: Tasks['postalAddresses']['input']): Promise<Tasks['postalAddresses']['output']> {
  const { plan, columns } = (await batchOf(batchId)).batch.mailing;
  const address = postalPattern(plan, columns);
  return Promise.all(
    records.map(async (record) => {
      const place = await findPlace({ batchId, ...record });
      return place && address(place);
    }),
  );
}
