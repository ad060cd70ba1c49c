import type { MailingChangesAnswer, MailingPlan } from '@mailbag/contract';
import { PASSWORD_KEPT, isWholeInPlan } from '@mailbag/core';
import { api } from '../../api/client';
import { OpenDesks } from '../editing/open-desks';

/** Plans of mailings that are worked on. */
export const planDesks = new OpenDesks<MailingPlan>({
  name: 'plan',
  isWhole: isWholeInPlan,
  async send(id, changes) {
    const { version, plan, clashes } = await api.post<MailingChangesAnswer>(`/api/mailings/${id}/changes`, { changes });
    return { version, document: plan, clashes };
  },
  // Passwords are not kept in the browser.
  keepable: (plan) => ({ ...plan, output: { ...plan.output, openPassword: PASSWORD_KEPT, permissionsPassword: PASSWORD_KEPT } }),
});
