import type { CopyState } from '@mailbag/core';
import { copyStates } from '@mailbag/core';

/** What the ledger is narrowed to; it stands in the address, so that it can be kept and sent. */
export interface LedgerFilter {
  text: string;
  state: CopyState | null;
  batch: number | null;
  mailing: number | null;
}

const whole = (text: string | null): number | null => (text && /^\d+$/.test(text) ? Number(text) : null);

export function readFilter(search: URLSearchParams): LedgerFilter {
  const state = search.get('state');
  return {
    text: search.get('text') ?? '',
    state: copyStates.find((one) => one === state) ?? null,
    batch: whole(search.get('batch')),
    mailing: whole(search.get('mailing')),
  };
}

/** The filter as the server takes it. */
export function filterQuery({ text, state, batch, mailing }: Partial<LedgerFilter>): string {
  const query = new URLSearchParams();
  if (text?.trim()) query.set('text', text.trim());
  if (state) query.set('state', state);
  if (batch) query.set('batch', String(batch));
  if (mailing) query.set('mailing', String(mailing));
  return query.toString();
}
