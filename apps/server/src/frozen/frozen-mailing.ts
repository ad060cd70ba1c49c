import type { MailingPlan } from '@mailbag/contract';
import type { BatchContext, Column, Field, FieldMap } from '@mailbag/core';

/** See `BatchContext`. */
export type OfficePlace = Pick<BatchContext, 'locale' | 'zone'>;

/** What a batch runs over, as it was at its start. */
export interface FrozenMailing {
  /** How dates and numbers are written out, and where. Batches of before this was kept have none. */
  place?: OfficePlace;
  plan: MailingPlan;
  columns: Column[];
  templates: { id: number; name: string; revisionId: number; hash: string; pages: number; fields: Field[]; map: FieldMap }[];
}

/** A batch as its row in the database freezes it. */
export interface FrozenBatch {
  context: BatchContext;
  mailing: FrozenMailing;
}

/** Reads what the columns `number`, `today` and `frozen` of a batch hold. */
export function frozenBatch({ number, today, frozen }: { number: number; today: string; frozen: string }): FrozenBatch {
  const mailing = JSON.parse(frozen) as FrozenMailing;
  return { context: { batch: number, today, ...(mailing.place ?? { locale: 'en-GB', zone: 'UTC' }) }, mailing };
}
