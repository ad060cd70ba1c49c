import type { Detail } from '@mailbag/core';
import { oneLine, remark } from '@mailbag/core';

/** A recipient that the server did not take. */
export interface RefusedRecipient {
  address: string;
  reply: string;
  /** True: it may be taken later. */
  forNow: boolean;
}

/**
 * How an attempt ended. `unknown`: the message was on its way when the connection was lost; nobody knows whether it arrived.
 * `server`: the mail server itself failed, so that no other message would fare better. `given-back`: the sending stopped before it began. `our-side`: it was not even tried, for a reason of our own;
 * `lasting`: one that does not go away by itself.
 */
export type Outcome =
  | { kind: 'accepted'; detail: Detail; accepted: string[]; refused: RefusedRecipient[] }
  | { kind: 'try-later' | 'refused' | 'unknown' | 'server' | 'given-back'; detail: Detail }
  | { kind: 'our-side'; detail: Detail; lasting: boolean };

/** Why a message is kept back whose sending stops before it was handed over. */
export const CLOSED = 'the sending stops';
/** Not tried, and no fault of the message. */
export const givenBack: Outcome = { kind: 'given-back', detail: remark('sending-stopped') };

export const shortWords = (text: string): string => oneLine(text).slice(0, 500);
