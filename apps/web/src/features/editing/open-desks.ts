import type { Change, Clash } from '@mailbag/core';
import { isMailbagError } from '@mailbag/core';
import { NoAnswer, sentenceOf } from '../../api/client';
import { unsaved } from '../../platform/unsaved';
import type { DeskPort, SendFault } from './document-desk';
import { DocumentDesk } from './document-desk';

function faultOf(error: unknown): SendFault {
  const why = sentenceOf(error);
  if (error instanceof NoAnswer) return { kind: 'away', why };
  if (isMailbagError(error)) {
    if (error.code === 'account-signed-out') return { kind: 'signed-out', why };
    if (error.code === 'disk-full') return { kind: 'away', why };
  }
  return { kind: 'refused', why };
}

/** What kind of document is worked on, and how it is sent. */
export interface DeskKind<Document> {
  /** Names its unsaved work in the browser. */
  name: string;
  isWhole: DeskPort<Document>['isWhole'];
  send(id: number, changes: Change[]): Promise<{ version: number; document: Document; clashes: Clash[] }>;
  /** What of it may be kept in the browser; left out: all. */
  keepable?: (document: Document) => Document;
}

/** What happens to desks, told to the application. */
export interface DeskEars {
  /** After every saving. */
  saved: (id: number) => void;
  /** The session was over. */
  signedOut: () => void;
}

const everything = new Set<{ resume(): void; readonly isUnsaved: boolean }>();

/** Desks of documents that were opened in this window: their steps of undo, and what is not saved, outlast the screen. */
export class OpenDesks<Document> {
  private readonly desks = new Map<number, DocumentDesk<Document>>();
  private owner = 0;

  constructor(private readonly kind: DeskKind<Document>) {
    everything.add(this);
  }

  /** The desk of a document. What an earlier window of the same person left behind is laid over what the server has. */
  open(
    id: number,
    { version, document }: { version: number; document: Document },
    accountId: number,
    ears: DeskEars,
  ): DocumentDesk<Document> {
    if (this.owner !== accountId) this.desks.clear();
    this.owner = accountId;
    const known = this.desks.get(id);
    if (known) return known;
    const { name, isWhole, send, keepable = (one: Document) => one } = this.kind;
    const key = `${name} of ${id}, account ${accountId}`;
    const desk = new DocumentDesk(document, version, {
      async send(changes) {
        const answer = await send(id, changes);
        ears.saved(id);
        return answer;
      },
      faultOf(error) {
        const fault = faultOf(error);
        if (fault.kind === 'signed-out') ears.signedOut();
        return fault;
      },
      isWhole,
      keep: (work) => (work ? unsaved.keep(key, { base: keepable(work.base), local: keepable(work.local) }) : unsaved.forget(key)),
    });
    this.desks.set(id, desk);
    void unsaved.takeOver<{ base: Document; local: Document }>(key).then(async (left) => {
      if (left.length === 0) return;
      for (const change of left) desk.restore(change);
      await desk.settle();
      // What could not be saved yet is kept by this window now.
      await unsaved.forgetOthers(key);
    });
    return desk;
  }

  resume(): void {
    for (const desk of this.desks.values()) desk.resume();
  }
  get isUnsaved(): boolean {
    return [...this.desks.values()].some((desk) => desk.isUnsaved);
  }
}

/** The server is back, or somebody has signed in. */
export function resumeDesks(): void {
  for (const desks of everything) desks.resume();
}

// Leaving warns only while something is not on the server.
window.addEventListener('beforeunload', (event) => {
  if ([...everything].some((desks) => desks.isUnsaved)) event.preventDefault();
});
window.addEventListener('online', resumeDesks);
