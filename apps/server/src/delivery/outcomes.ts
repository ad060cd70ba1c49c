import type { Trouble } from '@mailbag/core';
import { MOST_TRIES, enhancedCode, retryDelay } from '@mailbag/core';
import type { EntityManager } from 'typeorm';
import { changeCopies, markTrouble, noteCopies } from '../copies/copy-changes.js';
import { changed } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { copiesOfDelivery } from './envelopes.service.js';
import type { Outcome, RefusedRecipient } from './mail-transport.js';

/** A delivery as it was claimed. */
export interface Claimed {
  id: number;
  batchId: number;
  recordOrdinal: number;
  address: string;
  messageId: string;
  token: string;
  attempts: number;
  senderId: number;
  domain: string;
  kind: 'copies' | 'reminder';
  /** Addresses that have it already, as JSON; null: none. */
  accepted: string | null;
}

export const MAILBAG = 'Mailbag';

/** Ends the claim of a delivery. @returns whether it was still claimed */
export async function endClaim(
  manager: EntityManager,
  id: number,
  state: string,
  said: string,
  more: { nextTryAt?: string; attempts?: number } = {},
): Promise<boolean> {
  const now = new Date().toISOString();
  const set = ['state = ?', 'said = ?', 'updatedAt = ?', 'leaseUntil = NULL', 'handedAt = NULL'];
  const parameters: unknown[] = [state, said, now];
  if (state === 'sent') {
    set.push('sentAt = ?');
    parameters.push(now);
  }
  if (more.nextTryAt !== undefined) {
    set.push('nextTryAt = ?');
    parameters.push(more.nextTryAt);
  }
  if (more.attempts !== undefined) {
    set.push('attempts = ?');
    parameters.push(more.attempts);
  }
  return (await changed(manager, `UPDATE delivery SET ${set.join(', ')} WHERE id = ? AND state = 'sending'`, [...parameters, id])) === 1;
}

const troubleOf = (said: string): [Trouble, string | null] => {
  const code = enhancedCode(said);
  return [code?.trouble ?? 'their server', code?.code ?? null];
};
const listed = (refused: readonly RefusedRecipient[]): string =>
  refused
    .map(({ address, said }) => `${address}: ${said}`)
    .join(' · ')
    .slice(0, 1000);

/** How an attempt ended, written down in one piece: the delivery, its copies, their stories. @param renew gives the delivery another Message-ID */
export async function recordOutcome(
  manager: EntityManager,
  delivery: Claimed,
  outcome: Outcome,
  { restUntil, renew }: { restUntil: string | null; renew: () => Promise<void> },
): Promise<void> {
  const { id, attempts } = delivery;
  const copies = await copiesOfDelivery(manager, id, delivery.kind);
  const isReminder = delivery.kind === 'reminder';
  const change = async (event: Parameters<typeof changeCopies>[2], said: string): Promise<void> => {
    if (isReminder) return;
    await changeCopies(manager, copies, event, { who: MAILBAG, said });
    if (event !== 'defer') return;
    // What was on its way when the batch was cancelled is not tried again.
    const [batch] = (await manager.query('SELECT state FROM batch WHERE id = ?', [delivery.batchId])) as { state: string }[];
    if (batch?.state !== 'cancelled') return;
    await manager.query("UPDATE delivery SET state = 'withdrawn' WHERE id = ? AND state = 'retrying'", [id]);
    await changeCopies(manager, copies, 'withdraw', { who: MAILBAG, said: 'The batch was cancelled' });
  };
  const trouble = (where: Trouble | null, code: string | null): Promise<void> =>
    isReminder ? Promise.resolve() : markTrouble(manager, copies, where, code);
  const later = (): string => new Date(Date.now() + retryDelay(attempts, config.retryPace)).toISOString();

  switch (outcome.kind) {
    case 'accepted': {
      const { said, accepted, refused } = outcome;
      const main = new Set(delivery.address.toLowerCase().split(/[,;\s<>]+/));
      const waiting = refused.filter(({ address, forNow }) => forNow && main.has(address.toLowerCase()));
      const had = [...(delivery.accepted ? (JSON.parse(delivery.accepted) as string[]) : []), ...accepted];
      // Only what has several recipients needs to remember who has it.
      if (had.length > 1 || refused.length > 0)
        await manager.query('UPDATE delivery SET accepted = ?, refused = ? WHERE id = ?', [
          JSON.stringify(had),
          refused.length > 0 ? JSON.stringify(refused) : null,
          id,
        ]);
      if (waiting.length > 0 && attempts < MOST_TRIES) {
        const words = `Accepted for ${accepted.join(', ')}; refused for now: ${listed(waiting)}`;
        await endClaim(manager, id, 'retrying', words, { nextTryAt: later() });
        await renew();
        await change('defer', words);
        return;
      }
      const isReached = had.some((address) => main.has(address.toLowerCase()));
      if (!isReached && refused.length > 0) {
        // Only those who get it besides were taken.
        const words = `Refused for the recipient: ${listed(refused)}`;
        await endClaim(manager, id, 'bounced', words);
        await change('refuse', words);
        return trouble(...troubleOf(refused[0]!.said));
      }
      const words = refused.length > 0 ? `${said} · not taken: ${listed(refused)}` : said;
      await endClaim(manager, id, 'sent', words);
      if (isReminder) return noteCopies(manager, copies, 'remind', { who: MAILBAG, said: words });
      await change('accept', words);
      if (refused.length > 0) return trouble(...troubleOf(refused[0]!.said));
      // At the first try there was no trouble yet.
      return attempts > 1 ? trouble(null, null) : undefined;
    }
    case 'unknown':
      await endClaim(manager, id, 'unconfirmed', outcome.said);
      return change('lose', outcome.said);
    case 'server': {
      // The server's own failure is no try of this message.
      await endClaim(manager, id, 'retrying', outcome.said, { nextTryAt: restUntil ?? later(), attempts: Math.max(0, attempts - 1) });
      await change('defer', `Our mail server: ${outcome.said}`);
      return trouble('our side', enhancedCode(outcome.said)?.code ?? null);
    }
    case 'try-later':
      if (attempts < MOST_TRIES) {
        await endClaim(manager, id, 'retrying', outcome.said, { nextTryAt: later() });
        await change('defer', outcome.said);
        return trouble(...troubleOf(outcome.said));
      }
      break;
    case 'refused':
  }
  const said = outcome.kind === 'refused' ? outcome.said : `Given up after ${attempts} tries: ${outcome.said}`;
  await endClaim(manager, id, 'bounced', outcome.said);
  if (isReminder) return noteCopies(manager, copies, 'remind', { who: MAILBAG, said: `The reminder was refused: ${said}` });
  await change('refuse', said);
  return trouble(...troubleOf(outcome.said));
}
