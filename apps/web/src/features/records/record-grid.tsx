import type { Column } from '@mailbag/core';
import { useQueries } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { color } from '../../theme';

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
`;
const Line = styled.div`
  display: flex;
  position: absolute;
  left: 0;
  top: 0;
  min-width: 100%;
  border-bottom: 1px solid ${color.hair};
  & > span {
    flex: none;
    padding: 6px 10px;
    line-height: 18px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: pre;
  }
  & > span.row {
    position: sticky;
    left: 0;
    background: ${color.paper};
    color: ${color.faded};
    font-size: 12px;
    text-align: right;
    border-right: 1px solid ${color.hair};
  }
`;
const Heads = styled(Line)`
  position: sticky;
  z-index: 2;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.line};
  & > span {
    font-size: 12px;
    color: ${color.faded};
  }
  & b {
    color: ${color.ink};
    font-weight: 600;
  }
`;
const ROW = 31;
const BLOCK = 200;

const widthOf = (column: Column): number =>
  Math.min(280, Math.max(72, Math.max(column.name.length + 4, Math.min(column.longest.length, 34)) * 7.6 + 20));
const kindWords: Record<Column['kind'], string> = {
  text: 'text',
  number: 'number',
  date: 'date',
  'yes-no': 'yes or no',
  address: 'e-mail',
};

/** All records of a source; only what is in sight is asked for and drawn. */
export function RecordGrid({ sourceId, columns, total }: { sourceId: number; columns: readonly Column[]; total: number }) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: total, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 12 });
  const items = rows.getVirtualItems();
  const blocks = [...new Set(items.map(({ index }) => Math.floor(index / BLOCK)))];
  const pages = useQueries({ queries: blocks.map((block) => queries.records(sourceId, block * BLOCK, BLOCK)) });
  const recordAt = (index: number) => pages[blocks.indexOf(Math.floor(index / BLOCK))]?.data?.records[index % BLOCK];
  const widths = columns.map(widthOf);
  return (
    <Frame ref={frame} tabIndex={0} role="table" aria-label="Records" aria-rowcount={total}>
      <Heads role="row">
        <span className="row" style={{ width: 64 }} role="columnheader">
          Row
        </span>
        {columns.map((column, index) => (
          <span
            key={column.name}
            style={{ width: widths[index] }}
            role="columnheader"
            title={`${column.name}: ${kindWords[column.kind]}, ${column.empty} empty, ${column.distinct >= 1000 ? 'over 1,000' : column.distinct} different`}
          >
            <b>{column.name}</b> {kindWords[column.kind]}
          </span>
        ))}
      </Heads>
      <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
        {items.map((item) => {
          const record = recordAt(item.index);
          return (
            <Line key={item.key} role="row" style={{ transform: `translateY(${item.start}px)`, height: ROW }}>
              <span className="row" style={{ width: 64 }}>
                {record?.row ?? '…'}
              </span>
              {columns.map((column, index) => (
                <span
                  key={column.name}
                  role="cell"
                  title={record?.cells[index]?.text}
                  style={{ width: widths[index], textAlign: typeof record?.cells[index]?.value === 'number' ? 'right' : 'left' }}
                >
                  {record?.cells[index]?.text ?? ''}
                </span>
              ))}
            </Line>
          );
        })}
      </div>
    </Frame>
  );
}
