/**
 * The life of a copy. docs/states.md shows it as a diagram; a test holds the two together.
 *
 * planned → made → queued → sending → sent → returned → complete
 * sending → retrying → queued; sending → bounced; sent → bounced (late); sending → unconfirmed → sent, bounced (late) or queued
 * sending → made (set aside: our own file or message is not in order); queued or retrying → unconfirmed (the folder was restored)
 * bounced or made → printed → returned; bounced → queued (another address); any but complete → withdrawn
 *
 * Invariants:
 * (1) A copy has a file from "made" on, until it is withdrawn.
 * (2) A copy is handed to a mail server only from "sending", and "sending" is entered only from "queued".
 * (3) "sent" is reached only through an accepted attempt or by a person's word about an unconfirmed one.
 * (4) "complete" and "withdrawn" are final.
 * (5) The state of a copy is where its events lead, one after the other; notes lead nowhere.
 * (6) A copy in "sent" has one accepted attempt or one word of a person since it was last claimed, never two.
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
  'set-aside',
  'doubt',
  'confirm-sent',
  'send-again',
  'print',
  'return',
  'complete',
  'withdraw',
] as const;
export type CopyEventKind = (typeof copyEvents)[number];

/** What is written into a copy's story without changing its state. */
export const copyNotes = ['remind', 'to-paper', 'off-paper', 'reprint', 'delay', 'find', 'report', 'answer', 'pass-on'] as const;
export type CopyNote = (typeof copyNotes)[number];

/** For each event the states from which it leads, and where to. */
export const copyLaw: Record<CopyEventKind, { from: readonly CopyState[]; to: CopyState }> = {
  make: { from: ['planned'], to: 'made' },
  queue: { from: ['made', 'retrying'], to: 'queued' },
  claim: { from: ['queued'], to: 'sending' },
  accept: { from: ['sending'], to: 'sent' },
  defer: { from: ['sending'], to: 'retrying' },
  refuse: { from: ['sending', 'sent', 'unconfirmed'], to: 'bounced' },
  lose: { from: ['sending'], to: 'unconfirmed' },
  'set-aside': { from: ['sending'], to: 'made' },
  doubt: { from: ['queued', 'retrying'], to: 'unconfirmed' },
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

/** One line of a copy's story, oldest first. */
export interface StoryLine {
  event: string;
  state: CopyState;
}

const isNote = (event: string): event is CopyNote => copyNotes.some((one) => one === event);
const isEvent = (event: string): event is CopyEventKind => copyEvents.some((one) => one === event);

/**
 * Which of the invariants above a copy breaks, each with what is wrong; empty: none.
 * @param hasFile whether its file has been made and is known by its digest
 */
export function assertCopy({ state, hasFile, story }: { state: CopyState; hasFile: boolean; story: readonly StoryLine[] }): string[] {
  const broken: string[] = [];
  let at: CopyState = 'planned';
  /** What came since the last claim that says it was sent. */
  let accepted = 0;
  for (const [index, { event, state: told }] of story.entries()) {
    if (isNote(event)) {
      if (told !== at) broken.push(`(5) line ${index + 1}: the note "${event}" says ${told} while it is ${at}`);
      continue;
    }
    if (!isEvent(event)) {
      broken.push(`(5) line ${index + 1}: "${event}" is not an event`);
      continue;
    }
    const next = nextCopyState(at, event);
    if (next === null)
      broken.push(`(${at === 'complete' || at === 'withdrawn' ? 4 : 5}) line ${index + 1}: "${event}" cannot happen to what is ${at}`);
    if (event === 'claim') {
      if (at !== 'queued') broken.push(`(2) line ${index + 1}: claimed from ${at}`);
      accepted = 0;
    }
    if (event === 'accept' || event === 'confirm-sent') accepted++;
    if (told !== (next ?? told)) broken.push(`(5) line ${index + 1}: "${event}" leads to ${next}, not to ${told}`);
    if (told === 'sent' && accepted !== 1) broken.push(`(6) line ${index + 1}: sent after ${accepted} accepted attempts`);
    if (accepted > 1) broken.push(`(6) line ${index + 1}: accepted twice`);
    at = told;
  }
  if (at !== state) broken.push(`(5) its events lead to ${at}, but it is ${state}`);
  if (state !== 'planned' && state !== 'withdrawn' && !hasFile) broken.push(`(1) ${state} without a file`);
  if (state === 'sent' && !story.some(({ event }) => event === 'accept' || event === 'confirm-sent'))
    broken.push('(3) sent, but nothing says so');
  return broken;
}
