import type { LedgerSort } from '@mailbag/contract';
import type { CopyState, Trouble } from '@mailbag/core';
import { copyStates, troubles } from '@mailbag/core';

/** What each heading of the ledger orders it by, up and down. */
export const sorts = {
  oldest: { column: 'code', isDown: false },
  newest: { column: 'code', isDown: true },
  recipient: { column: 'recipient', isDown: false },
  'recipient-down': { column: 'recipient', isDown: true },
  'changed-up': { column: 'since', isDown: false },
  changed: { column: 'since', isDown: true },
} as const satisfies Record<LedgerSort, { column: string; isDown: boolean }>;
export type Sort = keyof typeof sorts;

/** How the server orders by a heading; null: as it does where nothing is said. */
export const sortOf = (order: { column: string; isDown: boolean } | null): Sort | null =>
  (Object.keys(sorts) as Sort[]).find((sort) => sorts[sort].column === order?.column && sorts[sort].isDown === order.isDown) ?? null;

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
