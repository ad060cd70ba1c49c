/**
 * The life of a copy. docs/states.md shows it as a diagram; a test holds the two together.
 *
 * planned → made → queued → sending → sent → returned → complete
 * sending → retrying → queued; sending → bounced; sent → bounced (late); sending → unconfirmed → sent or queued
 * bounced or made → printed → returned; bounced → queued (another address); any but complete → withdrawn
 *
 * Invariants:
 * (1) A copy has a file from "made" on, until it is withdrawn.
 * (2) A copy is handed to a mail server only from "sending", and "sending" is entered only from "queued".
 * (3) "sent" is reached only through an accepted attempt or by a person's word about an unconfirmed one.
 * (4) "complete" and "withdrawn" are final.
 */
export const copyStates = [
  'planned',
  'made',
  'queued',
  'sending',
  'sent',
  'retrying',
  'bounced',
  'unconfirmed',
  'printed',
  'returned',
  'complete',
  'withdrawn',
] as const;
export type CopyState = (typeof copyStates)[number];

export const copyEvents = [
  'make',
  'queue',
  'claim',
  'accept',
  'defer',
  'refuse',
  'lose',
  'confirm-sent',
  'send-again',
  'print',
  'return',
  'complete',
  'withdraw',
] as const;
export type CopyEventKind = (typeof copyEvents)[number];

/** For each event the states from which it leads, and where to. */
export const copyLaw: Record<CopyEventKind, { from: readonly CopyState[]; to: CopyState }> = {
  make: { from: ['planned'], to: 'made' },
  queue: { from: ['made', 'retrying'], to: 'queued' },
  claim: { from: ['queued'], to: 'sending' },
  accept: { from: ['sending'], to: 'sent' },
  defer: { from: ['sending'], to: 'retrying' },
  refuse: { from: ['sending', 'sent'], to: 'bounced' },
  lose: { from: ['sending'], to: 'unconfirmed' },
  'confirm-sent': { from: ['unconfirmed'], to: 'sent' },
  'send-again': { from: ['bounced', 'unconfirmed', 'made'], to: 'queued' },
  print: { from: ['made', 'bounced'], to: 'printed' },
  return: { from: ['sent', 'printed'], to: 'returned' },
  complete: { from: ['returned'], to: 'complete' },
  withdraw: { from: ['planned', 'made', 'queued', 'sent', 'retrying', 'bounced', 'unconfirmed', 'printed', 'returned'], to: 'withdrawn' },
};

/** The state after an event; null when the event cannot happen in this state. */
export function nextCopyState(state: CopyState, event: CopyEventKind): CopyState | null {
  const law = copyLaw[event];
  return law.from.includes(state) ? law.to : null;
}
