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

/** Something that a person should do now. */
export interface Need {
  kind: NeedKind;
  count: number;
  subject: string;
  detail: string;
  /** Where the list behind it is. */
  to: string;
}

export interface DeskAnswer {
  needs: Need[];
  running: BatchSummary[];
  mailings: { id: number; name: string; copies: number; counts: Record<string, number> }[];
  /** For each of the last days, ISO date and copies by what happened to them. */
  days: { day: string; made: number; sent: number; bounced: number; printed: number; returned: number }[];
  recent: { at: string; state: string; text: string; copyId: number | null }[];
}

export interface FindAnswer {
  hits: { kind: 'copy' | 'mailing' | 'template' | 'source'; id: number; title: string; detail: string; to: string }[];
}

/** What is told to open pages as it happens. */
export interface LiveEvent {
  topic: 'batch' | 'copies' | 'source' | 'checks' | 'mailing' | 'senders' | 'print-run' | 'register' | 'safety' | 'here';
  id: number;
}
