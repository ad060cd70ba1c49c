import type { MailingChangesAnswer, MailingDetail, MailingPlan } from '@mailbag/contract';
import { PASSWORD_KEPT, isMailbagError, isWholeInPlan } from '@mailbag/core';
import { NoAnswer, api, sentenceOf } from '../../api/client';
import { unsaved } from '../../platform/unsaved';
import type { DeskPort, SendFault } from '../editing/document-desk';
import { DocumentDesk } from '../editing/document-desk';

type Kept = { base: MailingPlan; local: MailingPlan };

/** Desks of mailings that were opened in this window: their steps of undo, and what is not saved, outlast the screen. */
const desks = new Map<number, DocumentDesk<MailingPlan>>();
let owner = 0;

function faultOf(error: unknown): SendFault {
  const why = sentenceOf(error);
  if (error instanceof NoAnswer) return { kind: 'away', why };
  if (isMailbagError(error)) {
    if (error.code === 'account-signed-out') return { kind: 'signed-out', why };
    if (error.code === 'disk-full') return { kind: 'away', why };
  }
  return { kind: 'refused', why };
}

/** Passwords are not kept in the browser. */
const withoutPasswords = (plan: MailingPlan): MailingPlan => ({
  ...plan,
  output: { ...plan.output, openPassword: PASSWORD_KEPT, permissionsPassword: PASSWORD_KEPT },
});

/**
 * The desk of a mailing. What an earlier window of the same person left behind is laid over what the server has.
 * @param tell `saved`: after every saving; `signedOut`: when the session was over
 */
export function planDesk(
  mailing: MailingDetail,
  accountId: number,
  tell: { saved: (id: number) => void; signedOut: () => void },
): DocumentDesk<MailingPlan> {
  if (owner !== accountId) desks.clear();
  owner = accountId;
  const { id, version, plan } = mailing;
  const known = desks.get(id);
  if (known) return known;
  const key = `plan of ${id}, account ${accountId}`;
  const port: DeskPort<MailingPlan> = {
    async send(changes) {
      const answer = await api.post<MailingChangesAnswer>(`/api/mailings/${id}/changes`, { changes });
      tell.saved(id);
      return { version: answer.version, document: answer.plan, clashes: answer.clashes };
    },
    faultOf(error) {
      const fault = faultOf(error);
      if (fault.kind === 'signed-out') tell.signedOut();
      return fault;
    },
    isWhole: isWholeInPlan,
    keep: (work) =>
      work
        ? unsaved.keep(key, { base: withoutPasswords(work.base), local: withoutPasswords(work.local) } satisfies Kept)
        : unsaved.forget(key),
  };
  const desk = new DocumentDesk(plan, version, port);
  desks.set(id, desk);
  void unsaved.takeOver<Kept>(key).then(async (left) => {
    if (left.length === 0) return;
    for (const kept of left) desk.restore(kept);
    await desk.settle();
    // What could not be saved yet is kept by this window now.
    await unsaved.forgetOthers(key);
  });
  return desk;
}

/** The server is back, or somebody has signed in. */
export function resumePlans(): void {
  for (const desk of desks.values()) desk.resume();
}

// Leaving warns only while something is not on the server.
window.addEventListener('beforeunload', (event) => {
  if ([...desks.values()].some((desk) => desk.isUnsaved)) event.preventDefault();
});
window.addEventListener('online', resumePlans);
