import { count, t, translated } from '@mailbag/core/words';
import type { BatchSummary } from '@mailbag/contract';
import { barOrder } from './state-parts';

/** Milliseconds after which a batch has taken so long that nobody waited before it. */
const LONG = 20_000;

export const isLong = ({ startedAt, finishedAt }: Pick<BatchSummary, 'startedAt' | 'finishedAt'>): boolean =>
  (finishedAt === null ? Date.now() : Date.parse(finishedAt)) - Date.parse(startedAt) >= LONG;

type Ended = Pick<BatchSummary, 'number' | 'mailingName' | 'state' | 'counts' | 'error'>;

/** How a batch ended: done with how many in which state, or stopped and why. */
export function endWords({ number, mailingName, state, counts, error }: Ended): { title: string; about: string; isStopped: boolean } {
  const batch = t`Batch ${number} of ${mailingName}`;
  const parts = barOrder.filter((one) => counts[one]).map((one) => `${count(counts[one] ?? 0)} ${one}`);
  if (state === 'paused') return { title: t`${batch} is paused`, about: error?.message ?? t`Somebody paused it.`, isStopped: true };
  return {
    title: t`${batch} is ${translated(state)}`,
    about: parts.length > 0 ? `${parts.join(', ')}.` : '',
    isStopped: state === 'cancelled',
  };
}
