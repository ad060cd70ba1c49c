import type { ReactNode } from 'react';
import type { ListColumn } from './column';
import type { ListOrder } from './list-order';

/** A list whose rows come from the server as it is gone down, ordered there. */
export interface FarList {
  order: ListOrder;
  onOrder: (order: ListOrder) => void;
  hasMore: boolean;
  onEnd: () => void;
}
export interface ListProps<T, K extends string | number> {
  /** Under which what a person chose of it is kept. */
  id: string;
  /** What it lists, as in “Search the …”. */
  label: string;
  noun: readonly [one: string, many: string];
  columns: readonly ListColumn<T>[];
  rows: readonly T[];
  keyOf: (row: T) => K;
  nameOf: (row: T) => string;
  /** Where a row leads. */
  to?: (row: T) => string;
  /** The row whose sheet is open; null: none. */
  chosen?: K | null;
  onChoose?: (key: K) => void;
  /** What can be done with the rows that are picked; left out: rows are not picked. */
  actions?: (picked: readonly T[], done: () => void) => ReactNode;
  searchHint?: string;
  /** In the bar, in place of how many there are. */
  lead?: ReactNode;
  tools?: ReactNode;
  /** What stands there where there is nothing; told whether that is for what is looked for. */
  empty: (isSearch: boolean) => ReactNode;
  far?: FarList;
  /** Beside another list: what stands before its own keys in the address. */
  place?: string;
  keepsBar?: boolean;
  /** Above the list there is no bar. */
  isBare?: boolean;
}
