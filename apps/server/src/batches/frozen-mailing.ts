import type { MailingPlan } from '@mailbag/contract';
import type { Column, Field, FieldMap } from '@mailbag/core';

/** What a batch runs over, as it was at its start. */
export interface FrozenMailing {
  plan: MailingPlan;
  columns: Column[];
  templates: { id: number; name: string; revisionId: number; hash: string; pages: number; fields: Field[]; map: FieldMap }[];
}
