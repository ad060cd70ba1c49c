import { t } from '@mailbag/core/words';
import type { CopyRow } from '@mailbag/contract';
import type { ReactNode } from 'react';
import { useCallback, useMemo } from 'react';
import { Link, useLocation } from 'react-router';
import { useLedger } from '../../api/queries';
import { Loading } from '../../ui/loading';
import { changedQuery, useAddress } from '../../ui/use-address';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { when } from '../when';
import type { Sort } from './ledger-filter';
import { sortOf, sorts } from './ledger-filter';
import { StateMark } from './state-mark';

const keyOf = ({ id }: CopyRow): number => id;
const nameOf = ({ code }: CopyRow): string => code;

/** The sheet of a copy on the same screen, as an address of its own. */
function CopyLink({ copy, children }: { copy: CopyRow; children: ReactNode }) {
  const { search } = useLocation();
  return (
    <Link to={{ search: changedQuery(search, { copy: copy.id }) }} replace style={{ color: 'inherit', textDecoration: 'none' }}>
      {children}
    </Link>
  );
}

const code: ListColumn<CopyRow> = {
  id: 'code',
  head: t`Code`,
  minWidth: 118,
  isFixed: true,
  text: nameOf,
  cell: (copy) => (
    <CopyLink copy={copy}>
      <code>{copy.code}</code>
    </CopyLink>
  ),
};
const recipient: ListColumn<CopyRow> = {
  id: 'recipient',
  head: t`Recipient`,
  minWidth: 90,
  share: 5,
  text: (copy) => copy.recipient || copy.address,
  cell: (copy) => (
    <span data-line title={copy.address}>
      {copy.recipient || copy.address}
    </span>
  ),
};
const file: ListColumn<CopyRow> = {
  id: 'file',
  head: t`File`,
  minWidth: 100,
  share: 6,
  isUnordered: true,
  text: (copy) => copy.file.split('/').at(-1) ?? '',
  cell: (copy) => (
    <span data-line title={copy.file}>
      {copy.file.split('/').at(-1)}
    </span>
  ),
};
const address: ListColumn<CopyRow> = {
  id: 'address',
  head: t`Address`,
  minWidth: 90,
  share: 4,
  isUnordered: true,
  text: (copy) => copy.address || t`no address`,
};
const mailing: ListColumn<CopyRow> = {
  id: 'mailing',
  head: t`Mailing`,
  minWidth: 90,
  share: 4,
  isUnordered: true,
  text: (copy) => `${copy.mailingName} · ${copy.batchNumber}`,
};
const template: ListColumn<CopyRow> = {
  id: 'template',
  head: t`Template`,
  minWidth: 100,
  share: 4,
  isExtra: true,
  isUnordered: true,
  text: (copy) => copy.templateName,
};
const state: ListColumn<CopyRow> = {
  id: 'state',
  head: t`State`,
  minWidth: 112,
  isUnordered: true,
  text: (copy) => copy.state,
  cell: (copy) => (
    <span data-line title={copy.nextTryAt ? t`next try ${when(copy.nextTryAt)}` : undefined}>
      <StateMark state={copy.state} />
    </span>
  ),
};
const since: ListColumn<CopyRow> = { id: 'since', head: t`Since`, minWidth: 104, text: (copy) => when(copy.since) };

const ofLedger = [code, recipient, file, mailing, { ...address, isExtra: true }, template, state, since];
const ofBatch = [code, recipient, file, address, template, state, since];
/** What there is room for beside a copy's sheet. */
const beside = [code, recipient, file, state, since];

/** Copies, newest first where nothing else is said, read page by page as one scrolls. */
export function CopyTable({
  filter,
  sort,
  chosen,
  onChoose,
  ofOneBatch = false,
  actions,
  lead,
  empty,
}: {
  filter: string;
  /** As it stands in the address; null: as the server has it. */
  sort: Sort | null;
  chosen: number | null;
  onChoose: (id: number) => void;
  /** All copies are of one batch, so its name is not told again. */
  ofOneBatch?: boolean;
  actions?: (picked: readonly CopyRow[], done: () => void) => ReactNode;
  /** Above the list. */
  lead?: ReactNode;
  empty: ReactNode;
}) {
  const { put } = useAddress();
  const { data, fetchNextPage, hasNextPage, isFetchingNextPage } = useLedger(sort ? `${filter}&sort=${sort}` : filter);
  const rows = useMemo<CopyRow[]>(() => data?.pages.flatMap((page) => page.rows) ?? [], [data]);
  const onEnd = useCallback(() => void (!isFetchingNextPage && fetchNextPage()), [isFetchingNextPage, fetchNextPage]);
  if (!data) return <Loading what={t`the ledger`} />;
  return (
    <List
      id={ofOneBatch ? 'batch' : 'ledger'}
      label={t`copies`}
      noun={['copy', 'copies']}
      columns={chosen !== null ? beside : ofOneBatch ? ofBatch : ofLedger}
      rows={rows}
      keyOf={keyOf}
      nameOf={nameOf}
      chosen={chosen}
      onChoose={onChoose}
      {...(actions && { actions })}
      lead={lead}
      empty={() => empty}
      far={{
        order: sort && sorts[sort],
        onOrder: (order) => put({ sort: sortOf(order), at: null }),
        hasMore: hasNextPage,
        onEnd,
      }}
    />
  );
}
