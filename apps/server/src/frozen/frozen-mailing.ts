import type { MailingPlan, ReminderPlan } from '@mailbag/contract';
import type { BatchContext, Column, Condition, CopyCount, Field, FieldMap, Stamp } from '@mailbag/core';
import type { LinkPlace } from './personal-link.js';
import type { FrozenRow } from '../stores/batch.store.js';

/** See `BatchContext`. */
export type OfficePlace = Pick<BatchContext, 'locale' | 'zone'>;

/** A template with its rules, as it was at the start. */
export interface FrozenTemplate {
  id: number;
  name: string;
  revisionId: number;
  hash: string;
  pages: number;
  fields: Field[];
  map: FieldMap;
  /** The records that get it. Left out: all of them. */
  when?: Condition;
  /** How many copies a record gets. Left out: one. */
  count?: CopyCount;
  /** What its layout stamps on every copy. Left out: nothing. */
  stamps?: Stamp[];
}

/** What a batch runs over, as it was at its start. */
export interface FrozenMailing {
  /** How dates and numbers are written out, and where. Batches of before this was kept have none. */
  place?: OfficePlace;
  plan: MailingPlan;
  columns: Column[];
  templates: FrozenTemplate[];
  /** The list of the pictures that came with the records; left out: none did. See `files/picture-list`. */
  pictures?: string;
  /** Where the personal links of its copies lead; left out: it has none. */
  links?: LinkPlace;
}

/** A batch as its row in the database freezes it. */
export interface FrozenBatch {
  context: BatchContext;
  mailing: FrozenMailing;
}

/** Reads what the row of a batch freezes; what its reminders say may have been written later. */
export function frozenBatch({ number, today, records, frozen, reminder }: FrozenRow): FrozenBatch {
  const mailing = JSON.parse(frozen) as FrozenMailing;
  if (reminder !== null) mailing.plan.message = { ...mailing.plan.message, reminder: JSON.parse(reminder) as ReminderPlan };
  return { context: { batch: number, today, count: records, ...(mailing.place ?? { locale: 'en-GB', zone: 'UTC' }) }, mailing };
}
