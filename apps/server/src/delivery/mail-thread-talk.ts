import type { SendingServer } from '../senders/senders.service.js';
import type { Outcome } from './outcome.js';
import type { OutgoingMessage } from './outgoing-message.js';

/** What the thread that speaks with mail servers is told. Transports and messages have numbers of their own, given by who asks. */
export type Told =
  | { kind: 'open'; transport: number; server: SendingServer }
  | { kind: 'send'; transport: number; id: number; message: OutgoingMessage }
  /** The answer at the gate. `refusal`: why the message must not leave; null: it may. */
  | { kind: 'gate'; id: number; refusal: string | null }
  | { kind: 'close'; transport: number };

/** What it says. `gate`: the server has asked for the message, and its first byte waits for an answer. */
export type ThreadMessage = { kind: 'gate'; id: number } | { kind: 'ended'; id: number; outcome: Outcome };
