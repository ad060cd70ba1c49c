import type { Said } from '@mailbag/core';
import type { BatchSummary } from './batch.js';

export type NeedKind =
  | 'bounced'
  | 'unconfirmed'
  | 'held-back'
  | 'paused'
  | 'no-mail-server'
  | 'server-fails'
  | 'sender-unconfirmed'
  | 'to-print'
  | 'register-fails'
  | 'print-run'
  | 'set-aside'
  | 'held'
  | 'waits'
  | 'lost-secrets'
  | 'self-check'
  | 'backup-fails'
  | 'reports'
  | 'retrying';

/** Something that a person should do now. The screen makes its sentence, and knows where the list behind it is. */
export interface Need {
  kind: NeedKind;
  count: number;
  /** Of what it is about: a mailing, batch, server, address, register; null: there is only one of its kind. */
  name: string | null;
  /** Of the mailing or the batch; null: it is about neither. */
  id: number | null;
  /** Of the batch or the print run, as people count them. */
  number: number | null;
  /** Why, in others' words or by remark. */
  said: Said | null;
}

export interface DeskAnswer {
  needs: Need[];
  running: BatchSummary[];
  mailings: { id: number; name: string; copies: number; counts: Record<string, number> }[];
  /** For each of the last days, ISO date and copies by what happened to them. */
  days: { day: string; made: number; sent: number; bounced: number; printed: number; returned: number }[];
  recent: { at: string; state: string; recipient: string; templateName: string; said: Said | null; copyId: number }[];
}

export interface FindAnswer {
  hits: (
    | { kind: 'copy'; id: number; name: string; code: string; templateName: string; state: string }
    | { kind: 'mailing' | 'source'; id: number; name: string; records: number }
    | { kind: 'template'; id: number; name: string; fields: number }
  )[];
}

/** What is told to open pages as it happens. */
export interface LiveEvent {
  topic: 'batch' | 'copies' | 'source' | 'checks' | 'mailing' | 'senders' | 'print-run' | 'register' | 'safety' | 'here';
  id: number;
}
