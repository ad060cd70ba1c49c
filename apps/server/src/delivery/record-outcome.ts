import type { CopyEventKind, Trouble, Detail } from '@mailbag/core';
import { MOST_TRIES, enhancedCode, retryDelay, remark, detailText } from '@mailbag/core';
import { changeCopies, markTrouble, noteCopies } from '../copies/copy-changes.js';
import { config } from '../platform/config.js';
import type { ClaimEnd, Claimed } from '../stores/delivery.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { copiesOfDelivery } from './envelopes.service.js';
import type { Outcome, RefusedRecipient } from './outcome.js';
import { batchStore } from '../stores/batch.store.js';
import type { Sql } from '../persistence/sql.js';
import { MAILBAG } from '../platform/principal.js';

/** What an attempt leads to. */
interface Decision extends ClaimEnd {
  event: CopyEventKind;
  /** What the copies' story says; the same as `said` where it is left out. */
  story?: Detail;
  /** Where the trouble sits, and its code; undefined: nothing is known anew. */
  trouble?: [Trouble | null, string | null];
  /** All who have it by now, where that must be remembered, and who did not take it. */
  accepted?: string[];
  refused?: readonly RefusedRecipient[];
  /** Some have the message: the others get it under another Message-ID. */
  renews?: boolean;
}

const troubleOf = (detail: string): [Trouble, string | null] => {
  const code = enhancedCode(detail);
  return [code?.trouble ?? 'their server', code?.code ?? null];
};
const listed = (refused: readonly RefusedRecipient[]): string =>
  refused
    .map(({ address, reply }) => `${address}: ${reply}`)
    .join(' · ')
    .slice(0, 1000);

function ofAccepted(
  { address, accepted: before, attempts }: Claimed,
  { detail, accepted, refused }: Extract<Outcome, { kind: 'accepted' }>,
  later: string,
): Decision {
  const main = new Set(address.toLowerCase().split(/[,;\s<>]+/));
  const isMain = (one: string): boolean => main.has(one.toLowerCase());
  const waiting = refused.filter((one) => one.forNow && isMain(one.address));
  const had = [...(before ? (JSON.parse(before) as string[]) : []), ...accepted];
  // Only what has several recipients needs to remember who has it.
  const remembered = had.length > 1 || refused.length > 0 ? { accepted: had, refused } : {};
  if (waiting.length > 0 && attempts < MOST_TRIES) {
    const words = remark('accepted-for-some', { accepted: accepted.join(', '), refused: listed(waiting) });
    return { ...remembered, state: 'retrying', detail: words, event: 'defer', nextTryAt: later, renews: true };
  }
  if (refused.length > 0 && !had.some(isMain)) {
    // Only those who get it besides were taken.
    const words = remark('refused-for-recipient', { refused: listed(refused) });
    return { ...remembered, state: 'bounced', detail: words, event: 'refuse', trouble: troubleOf(refused[0]!.reply) };
  }
  const decision = { ...remembered, state: 'sent', event: 'accept' } as const;
  if (refused.length > 0) {
    const words = remark('accepted-not-all', { answer: detailText(detail), refused: listed(refused) });
    return { ...decision, detail: words, trouble: troubleOf(refused[0]!.reply) };
  }
  // At the first try there was no trouble yet.
  return { ...decision, detail, ...(attempts > 1 ? { trouble: [null, null] } : {}) };
}

/** What becomes of a delivery. @param restUntil until when its mail server rests; null: it does not */
export function decide(delivery: Claimed, outcome: Outcome, restUntil: string | null, now = Date.now()): Decision {
  const { attempts } = delivery;
  const { detail } = outcome;
  const words = detailText(detail);
  const later = new Date(now + retryDelay(attempts, config.retryPace)).toISOString();
  // What fails on our side is no try of this message.
  const again = { state: 'retrying', detail, event: 'defer', nextTryAt: restUntil ?? later, attempts: Math.max(0, attempts - 1) } as const;
  switch (outcome.kind) {
    case 'accepted':
      return ofAccepted(delivery, outcome, later);
    case 'unknown':
      return { state: 'unconfirmed', detail, event: 'lose' };
    case 'server':
      return { ...again, story: remark('our-server', { answer: words }), trouble: ['our side', enhancedCode(words)?.code ?? null] };
    case 'given-back':
      return { ...again, nextTryAt: restUntil ?? new Date(now).toISOString() };
    case 'our-side':
      return outcome.lasting
        ? { state: 'stopped', detail, event: 'set-aside', trouble: ['our side', null] }
        : { ...again, story: remark('our-side', { answer: words }), trouble: ['our side', null] };
    case 'try-later':
      if (attempts < MOST_TRIES) return { state: 'retrying', detail, event: 'defer', nextTryAt: later, trouble: troubleOf(words) };
      return {
        state: 'bounced',
        detail,
        event: 'refuse',
        story: remark('given-up', { attempts, answer: words }),
        trouble: troubleOf(words),
      };
    case 'refused':
      return { state: 'bounced', detail, event: 'refuse', trouble: troubleOf(words) };
  }
}

/** What a reminder leaves in the story of its copies; null: nothing. */
function reminderNote({ state, detail, story = detail }: Decision): Detail | null {
  if (state === 'sent') return detail;
  if (state === 'bounced') return remark('reminder-refused', { answer: detailText(story) });
  return state === 'stopped' ? remark('reminder-not-sent', { answer: detailText(story) }) : null;
}

/**
 * How an attempt ended, written down in one piece: the delivery, its copies, their stories.
 * @param renew gives the delivery another Message-ID
 * @returns false: the claim was lost, and nothing was written
 */
export async function recordOutcome(
  sql: Sql,
  delivery: Claimed,
  outcome: Outcome,
  { restUntil, renew }: { restUntil: string | null; renew: () => Promise<void> },
): Promise<boolean> {
  const decision = decide(delivery, outcome, restUntil);
  const { detail, event, story = detail, trouble, accepted, refused } = decision;
  if (!(await deliveryStore.endClaim(sql, delivery, decision))) return false;
  const { id, batchId, kind } = delivery;
  if (accepted)
    await deliveryStore.remember(sql, id, JSON.stringify(accepted), refused && refused.length > 0 ? JSON.stringify(refused) : null);
  if (decision.renews) await renew();
  const copies = await copiesOfDelivery(sql, id, kind);
  if (kind === 'reminder') {
    const note = reminderNote(decision);
    if (note !== null) await noteCopies(sql, copies, 'remind', { who: MAILBAG, detail: note });
    return true;
  }
  await changeCopies(sql, copies, event, { who: MAILBAG, detail: story });
  if (event === 'defer') {
    // What was on its way when the batch was cancelled is not tried again.
    const batch = await batchStore.state(sql, batchId);
    if (batch?.state === 'cancelled') {
      await deliveryStore.withdraw(sql, id);
      await changeCopies(sql, copies, 'withdraw', { who: MAILBAG, detail: remark('batch-cancelled') });
    }
  }
  if (trouble) await markTrouble(sql, copies, ...trouble);
  return true;
}
