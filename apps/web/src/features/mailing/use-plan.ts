import type { MailingDetail, MailingPlan } from '@mailbag/contract';
import type { DeskEditor } from '../editing/use-desk';
import { useDesk } from '../editing/use-desk';
import { planDesks } from './plan-desks';

export interface PlanEditor extends Omit<DeskEditor<MailingPlan>, 'document'> {
  plan: MailingPlan;
}

const STALE = ['mailings', 'checks'];

/** The plan of a mailing as it is being worked on in one part of its screen, to which the steps of undo belong. */
export function usePlan(mailing: MailingDetail, part: string): PlanEditor {
  const { document: plan, ...editor } = useDesk(planDesks, mailing.id, { version: mailing.version, document: mailing.plan }, part, STALE);
  return { plan, ...editor };
}
