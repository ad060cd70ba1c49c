import type { MailingPlan } from '@mailbag/contract';
import type { Column, Field, FieldMap } from '@mailbag/core';

/** What a batch runs over, as it was at its start. */
export interface FrozenMailing {
  plan: MailingPlan;
  columns: Column[];
  templates: { id: number; name: string; revisionId: number; hash: string; pages: number; fields: Field[]; map: FieldMap }[];
}

/** What patterns are told of their batch. */
export interface BatchFacts {
  number: number;
  /** The day on which it was started, where the office is. ISO 8601. */
  today: string;
}
