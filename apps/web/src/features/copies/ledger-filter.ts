import type { CopyState, Trouble } from '@mailbag/core';
import { copyStates, troubles } from '@mailbag/core';

export const sorts = { newest: 'newest first', oldest: 'oldest first', recipient: 'by recipient', changed: 'changed last first' } as const;
export type Sort = keyof typeof sorts;

/** What the ledger is narrowed to; it stands in the address, so that it can be kept and sent. */
export interface LedgerFilter {
  text: string;
  state: CopyState | null;
  batch: number | null;
  mailing: number | null;
  template: number | null;
  trouble: Trouble | null;
  /** ISO days, both counted in. */
  from: string | null;
  to: string | null;
  paper: 'yes' | null;
  sort: Sort | null;
}

const whole = (text: string | null): number | null => (text && /^\d+$/.test(text) ? Number(text) : null);
const day = (text: string | null): string | null => (text && /^\d{4}-\d{2}-\d{2}$/.test(text) ? text : null);

export function readFilter(search: URLSearchParams): LedgerFilter {
  return {
    text: search.get('text') ?? '',
    state: copyStates.find((one) => one === search.get('state')) ?? null,
    batch: whole(search.get('batch')),
    mailing: whole(search.get('mailing')),
    template: whole(search.get('template')),
    trouble: troubles.find((one) => one === search.get('trouble')) ?? null,
    from: day(search.get('from')),
    to: day(search.get('to')),
    paper: search.get('paper') === 'yes' ? 'yes' : null,
    sort: (Object.keys(sorts) as Sort[]).find((one) => one === search.get('sort')) ?? null,
  };
}

/** The filter as the server takes it. */
export function filterQuery(filter: Partial<LedgerFilter>): string {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(filter)) {
    const text = typeof value === 'string' ? value.trim() : value;
    if (text !== null && text !== undefined && text !== '') query.set(name, String(text));
  }
  return query.toString();
}

/** Whether anything is left out. */
export const isNarrowed = ({ sort: _, ...filter }: LedgerFilter): boolean =>
  Object.values(filter).some((value) => value !== null && value !== '');
