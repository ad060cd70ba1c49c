import type { CopyRow } from '@mailbag/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { KeyboardEvent } from 'react';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { useLedger } from '../../api/queries';
import { color, font } from '../../theme';
import { stopFor } from '../../ui/arrow-stops';
import { useShortcutHelp } from '../../ui/shortcuts';
import { Loading } from '../../ui/loading';
import { when } from '../when';
import { StateMark } from './state-mark';

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
`;
const Line = styled.div<{ $narrow: boolean; $short: boolean }>`
  display: grid;
  grid-template-columns: ${({ $narrow, $short }) =>
    $narrow
      ? '118px minmax(0, 1.1fr) minmax(0, 1.3fr) 112px 64px'
      : $short
        ? '126px minmax(0, 1fr) minmax(0, 1.2fr) minmax(0, 1fr) 118px 104px'
        : '126px minmax(0, 1.2fr) minmax(0, 1.5fr) minmax(0, 1fr) 118px 104px'};
  gap: 12px;
  padding: 6px 16px;
  border-bottom: 1px solid ${color.hair};
  align-items: center;
  height: 34px;
  & > * {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > code {
    font-family: ${font.mono};
    font-size: 12px;
  }
  &[data-row] {
    cursor: pointer;
    position: absolute;
    left: 0;
    right: 0;
    top: 0;
  }
  &[data-row]:hover {
    background: ${color.paper};
  }
  &[data-row][aria-selected='true'] {
    background: ${color.plumWash};
  }
`;
const Heads = styled(Line)`
  position: sticky;
  top: 0;
  z-index: 1;
  background: ${color.sheet};
  color: ${color.faded};
  font-size: 12px;
  height: 29px;
  border-bottom: 1px solid ${color.line};
`;
const ROW = 34;
const KEYS = [{ keys: '↑ ↓ Home End PgUp PgDn', what: 'From copy to copy' }];

/** Copies, newest first, read page by page as one scrolls. */
export function CopyTable({
  filter,
  chosen,
  onChoose,
  narrow,
  ofOneBatch = false,
  empty,
}: {
  filter: string;
  chosen: number | null;
  onChoose: (id: number) => void;
  narrow: boolean;
  /** All copies are of one batch, so its name is not told again. */
  ofOneBatch?: boolean;
  empty: React.ReactNode;
}) {
  useShortcutHelp(KEYS);
  const { data, fetchNextPage, hasNextPage, isFetchingNextPage } = useLedger(filter);
  const rows: CopyRow[] = data?.pages.flatMap((page) => page.rows) ?? [];
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 15 });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage && last >= rows.length - 30) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, last, rows.length, fetchNextPage]);
  const at = rows.findIndex(({ id }) => id === chosen);
  // The chosen one comes into view, also one that an address names; then it stays where it is while others come in.
  const shown = useRef<number | null>(null);
  useEffect(() => {
    if (at >= 0 && shown.current !== chosen) virtual.scrollToIndex(at);
    if (at >= 0) shown.current = chosen;
  }, [chosen, at, virtual]);
  const onKeyDown = (event: KeyboardEvent): void => {
    // Without a choice Down comes to the first, and Up as well.
    const to = at < 0 && event.key.startsWith('Arrow') ? stopFor('Home', 0, rows.length) : stopFor(event.key, at, rows.length);
    if (to === null || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    onChoose(rows[to]!.id);
  };
  if (!data) return <Loading what="the ledger" />;
  if (rows.length === 0) return <Frame>{empty}</Frame>;
  return (
    <Frame
      ref={frame}
      tabIndex={0}
      role="grid"
      aria-label="Copies"
      // More may come than have been read so far (WAI-ARIA 1.2, aria-rowcount).
      aria-rowcount={hasNextPage ? -1 : rows.length + 1}
      aria-activedescendant={at >= 0 && items.some(({ index }) => index === at) ? `copy-${chosen}` : undefined}
      onKeyDown={onKeyDown}
    >
      <Heads $narrow={narrow} $short={ofOneBatch} role="row">
        <span role="columnheader">Code</span>
        <span role="columnheader">Recipient</span>
        <span role="columnheader">File</span>
        {!narrow && <span role="columnheader">{ofOneBatch ? 'Address' : 'Mailing'}</span>}
        <span role="columnheader">State</span>
        <span role="columnheader">Since</span>
      </Heads>
      <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {items.map((item) => {
          const copy = rows[item.index]!;
          return (
            <Line
              key={copy.id}
              $narrow={narrow}
              $short={ofOneBatch}
              data-row
              id={`copy-${copy.id}`}
              role="row"
              aria-rowindex={item.index + 2}
              aria-selected={copy.id === chosen}
              style={{ transform: `translateY(${item.start}px)` }}
              onClick={() => onChoose(copy.id)}
            >
              <code role="gridcell">{copy.code}</code>
              <span role="gridcell" title={copy.address}>
                {copy.recipient || copy.address}
              </span>
              <span role="gridcell" title={copy.file}>
                {copy.file.split('/').at(-1)}
              </span>
              {!narrow && (
                <span role="gridcell">{ofOneBatch ? copy.address || 'no address' : `${copy.mailingName} · ${copy.batchNumber}`}</span>
              )}
              <span role="gridcell" title={copy.nextTryAt ? `next try ${when(copy.nextTryAt)}` : undefined}>
                <StateMark state={copy.state} />
              </span>
              <span role="gridcell">{when(copy.since)}</span>
            </Line>
          );
        })}
      </div>
    </Frame>
  );
}
