/** For each event the states from which it leads, and where it may lead. */
export type Law<State extends string> = Readonly<Record<string, { from: readonly State[]; to: readonly State[] }>>;

/** Whether some event of a law leads from one state to another. */
export const leads = <State extends string>(law: Law<State>, from: State, to: State): boolean =>
  Object.values(law).some((event) => event.from.includes(from) && event.to.includes(to));

export const batchStates = ['planning', 'making', 'sending', 'paused', 'done', 'cancelled'] as const;
/**
 * The life of a batch. Paused by a person or by what went wrong, it goes on with what it did before. What is made stays; "done" and "cancelled" are final.
 */
export const batchLaw: Law<(typeof batchStates)[number]> = {
  planned: { from: ['planning'], to: ['making'] },
  made: { from: ['making'], to: ['sending', 'done'] },
  sent: { from: ['sending'], to: ['done'] },
  pause: { from: ['planning', 'making', 'sending'], to: ['paused'] },
  resume: { from: ['paused'], to: ['planning', 'making', 'sending'] },
  cancel: { from: ['planning', 'making', 'sending', 'paused'], to: ['cancelled'] },
};

export const deliveryStates = ['queued', 'sending', 'retrying', 'sent', 'bounced', 'unconfirmed', 'withdrawn', 'stopped'] as const;
/**
 * The life of a delivery, which is one envelope to one recipient. It leaves only from "sending", and "sending" is entered under a claim only.
 * Whoever ends a claim shows it. "stopped": for a reason of our own that does not go away by itself.
 */
export const deliveryLaw: Law<(typeof deliveryStates)[number]> = {
  claim: { from: ['queued', 'retrying'], to: ['sending'] },
  accept: { from: ['sending'], to: ['sent'] },
  defer: { from: ['sending'], to: ['retrying'] },
  release: { from: ['sending'], to: ['queued'] },
  refuse: { from: ['sending', 'sent', 'unconfirmed'], to: ['bounced'] },
  lose: { from: ['sending'], to: ['unconfirmed'] },
  doubt: { from: ['queued', 'retrying'], to: ['unconfirmed'] },
  settle: { from: ['unconfirmed'], to: ['sent'] },
  stop: { from: ['sending'], to: ['stopped'] },
  withdraw: { from: ['queued', 'retrying', 'sending'], to: ['withdrawn'] },
};

export const printRunStates = ['making', 'ready', 'sending', 'printing', 'printed', 'failed', 'unconfirmed', 'cancelled'] as const;
/** The life of a print run. Whether paper came out is told by the printer or by a person; "printed" and "cancelled" are final. */
export const printRunLaw: Law<(typeof printRunStates)[number]> = {
  assembled: { from: ['making'], to: ['ready'] },
  fail: { from: ['making', 'printing'], to: ['failed'] },
  print: { from: ['ready', 'failed'], to: ['sending'] },
  accepted: { from: ['sending'], to: ['printing'] },
  refused: { from: ['sending'], to: ['ready'] },
  lost: { from: ['sending', 'printing'], to: ['unconfirmed'] },
  printed: { from: ['ready', 'failed', 'unconfirmed', 'printing'], to: ['printed'] },
  cancel: { from: ['making', 'ready', 'sending', 'printing', 'failed', 'unconfirmed'], to: ['cancelled'] },
};
