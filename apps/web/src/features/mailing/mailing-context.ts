import type { MailingDetail } from '@mailbag/contract';
import type { Column } from '@mailbag/core';
import type { PlanEditor } from './use-plan';

/** What every part of a mailing's desk works with. */
export interface MailingWork extends PlanEditor {
  mailing: MailingDetail;
  columns: readonly Column[];
  /** Place of the chosen record among all, from 0. */
  index: number;
  setIndex: (index: number) => void;
}
