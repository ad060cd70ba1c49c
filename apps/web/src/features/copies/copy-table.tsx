import type { CopyRow } from '@mailbag/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { useLedger } from '../../api/queries';
import { color, font } from '../../theme';
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
  &[aria-selected='true'] {
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
  const { data, fetchNextPage, hasNextPage, isFetchingNextPage } = useLedger(filter);
  const rows: CopyRow[] = data?.pages.flatMap((page) => page.rows) ?? [];
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 15 });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage && last >= rows.length - 30) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, last, rows.length, fetchNextPage]);
  const step = (by: number): void => {
    const next = rows[rows.findIndex(({ id }) => id === chosen) + by];
    if (next) onChoose(next.id);
  };
  if (!data) return <Loading what="the ledger" />;
  return (
    <Frame
      ref={frame}
      tabIndex={0}
      role="grid"
      aria-label="Copies"
      onKeyDown={(event) => {
        if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
          event.preventDefault();
          step(event.key === 'ArrowDown' ? 1 : -1);
        }
      }}
    >
      <Heads $narrow={narrow} $short={ofOneBatch} role="row">
        <span role="columnheader">Code</span>
        <span role="columnheader">Recipient</span>
        <span role="columnheader">File</span>
        {!narrow && <span role="columnheader">{ofOneBatch ? 'Address' : 'Mailing'}</span>}
        <span role="columnheader">State</span>
        <span role="columnheader">Since</span>
      </Heads>
      {rows.length === 0 && empty}
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {items.map((item) => {
          const copy = rows[item.index]!;
          return (
            <Line
              key={copy.id}
              $narrow={narrow}
              $short={ofOneBatch}
              data-row
              role="row"
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
