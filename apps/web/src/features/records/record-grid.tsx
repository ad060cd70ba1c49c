import type { CorrectionAnswer } from '@mailbag/contract';
import type { Column } from '@mailbag/core';
import { columnKindName, isMailbagError } from '@mailbag/core';
import { useQueries } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Notice } from '../../ui/mark';
import { useMayChange } from '../../ui/rights';
import { CellEditor, correctionWords } from './cell-editor';
import type { Corrections } from './use-corrections';

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
  width: max-content;
  border-bottom: 1px solid ${color.hair};
  & > span {
    flex: none;
    padding: 6px 10px;
    line-height: 18px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: pre;
  }
  & > span[aria-selected='true'] {
    box-shadow: inset 0 0 0 2px ${color.plum};
  }
  & > span[data-corrected] {
    position: relative;
    background: ${color.mossWash};
  }
  & > span[data-corrected]::after {
    content: '';
    position: absolute;
    right: 0;
    top: 0;
    border: 5px solid ${color.moss};
    border-left-color: transparent;
    border-bottom-color: transparent;
  }
  & > span[data-editing] {
    padding: 2px 3px;
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
  left: auto;
  z-index: 2;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.line};
  & > span {
    font-size: 12px;
    color: ${color.faded};
  }
  & button {
    border: 0;
    padding: 0;
    background: none;
    font: inherit;
    color: inherit;
    text-align: left;
    cursor: pointer;
  }
  & b {
    color: ${color.ink};
    font-weight: 600;
  }
`;
const ROW = 31;
const BLOCK = 200;

const widthOf = (column: Column): number =>
  Math.min(
    280,
    Math.max(72, (column.name.length + columnKindName(column.kind).length + 1) * 7 + 22, Math.min(column.longest.length, 34) * 7.6 + 20),
  );
/** The column of a heading in words. */
const about = (column: Column): string =>
  `${column.name}: ${columnKindName(column.kind)}, ${column.empty} empty, ${column.distinct >= 1000 ? 'over 1,000' : column.distinct} different`;

/**
 * All records of a source; only what is in sight is asked for and drawn. With `corrections` values are changed in place:
 * the arrows move, Enter or a letter begins, Escape leaves.
 */
export function RecordGrid({
  sourceId,
  columns,
  total,
  corrections: given,
  onColumn,
}: {
  sourceId: number;
  columns: readonly Column[];
  total: number;
  corrections?: Corrections;
  /** A heading was chosen. */
  onColumn?: (name: string) => void;
}) {
  const mayChange = useMayChange();
  const corrections = mayChange ? given : undefined;
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollPaddingStart: ROW,
  });
  const [active, setActive] = useState<{ index: number; column: number } | null>(null);
  const [draft, setDraft] = useState<string | null>(null);
  const items = rows.getVirtualItems();
  const blocks = [...new Set(items.map(({ index }) => Math.floor(index / BLOCK)))];
  const pages = useQueries({ queries: blocks.map((block) => queries.records(sourceId, block * BLOCK, BLOCK)) });
  const failed = pages.find(({ error }) => error)?.error ?? null;
  const pageOf = (index: number) => pages[blocks.indexOf(Math.floor(index / BLOCK))]?.data;
  const recordAt = (index: number) => pageOf(index)?.records[index % BLOCK];
  const correctionAt = (index: number, row: number, column: string): CorrectionAnswer | null =>
    pageOf(index)?.corrections.find((one) => one.row === row && one.column === column) ?? null;
  const widths = columns.map(widthOf);

  const move = (index: number, column: number): void => {
    const to = { index: Math.min(total - 1, Math.max(0, index)), column: Math.min(columns.length - 1, Math.max(0, column)) };
    setActive(to);
    rows.scrollToIndex(to.index);
    const left = widths.slice(0, to.column).reduce((sum, width) => sum + width, 64);
    const box = frame.current;
    if (!box) return;
    if (left - 64 < box.scrollLeft) box.scrollLeft = left - 64;
    else if (left + widths[to.column]! > box.scrollLeft + box.clientWidth) box.scrollLeft = left + widths[to.column]! - box.clientWidth;
  };
  const onKeyDown = (event: React.KeyboardEvent): void => {
    if (draft !== null) return;
    const { index, column } = active ?? { index: 0, column: 0 };
    const page = Math.max(1, Math.floor((frame.current?.clientHeight ?? 300) / ROW) - 2);
    const steps: Record<string, [number, number]> = {
      ArrowDown: [index + 1, column],
      ArrowUp: [index - 1, column],
      ArrowRight: [index, column + 1],
      ArrowLeft: [index, column - 1],
      PageDown: [index + page, column],
      PageUp: [index - page, column],
      Home: [event.ctrlKey ? 0 : index, 0],
      End: [event.ctrlKey ? total - 1 : index, columns.length - 1],
    };
    const to = steps[event.key];
    if (to) {
      event.preventDefault();
      move(...to);
    } else if (corrections && active && (event.key === 'Enter' || event.key === 'F2')) {
      event.preventDefault();
      setDraft(recordAt(index)?.cells[column]?.text ?? '');
    } else if (corrections && active && event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) {
      event.preventDefault();
      setDraft(event.key);
    }
  };
  return (
    <Frame ref={frame} tabIndex={0} role="grid" aria-label="Records" aria-rowcount={total} onKeyDown={onKeyDown}>
      <Heads role="row">
        <span className="row" style={{ width: 64 }} role="columnheader">
          Row
        </span>
        {columns.map((column, index) => (
          <span key={column.name} style={{ width: widths[index] }} role="columnheader" title={about(column)}>
            {onColumn ? (
              <button onClick={() => onColumn(column.name)} aria-label={`${column.name} ${columnKindName(column.kind)}: how it is read`}>
                <b>{column.name}</b> {columnKindName(column.kind)}
              </button>
            ) : (
              <>
                <b>{column.name}</b> {columnKindName(column.kind)}
              </>
            )}
          </span>
        ))}
      </Heads>
      {failed && (
        <div style={{ padding: 12, position: 'sticky', left: 0, width: 'min(100%, 640px)' }}>
          <Notice tone={isMailbagError(failed) && failed.code === 'account-values-hidden' ? 'plain' : 'brick'}>{sentenceOf(failed)}</Notice>
        </div>
      )}
      <div style={{ height: failed ? 0 : rows.getTotalSize(), position: 'relative', overflow: failed ? 'hidden' : undefined }}>
        {items.map((item) => {
          const record = recordAt(item.index);
          return (
            <Line key={item.key} role="row" style={{ transform: `translateY(${item.start}px)`, height: ROW }}>
              <span className="row" style={{ width: 64 }}>
                {record?.row ?? '…'}
              </span>
              {columns.map((column, index) => {
                const cell = record?.cells[index];
                const isActive = active?.index === item.index && active.column === index;
                const isEditing = isActive && draft !== null;
                const correction = record ? correctionAt(item.index, record.row, column.name) : null;
                return (
                  <span
                    key={column.name}
                    role="gridcell"
                    aria-selected={isActive}
                    data-corrected={correction ? true : undefined}
                    data-editing={isEditing || undefined}
                    title={correction ? correctionWords(correction) : cell?.text}
                    style={{ width: widths[index], textAlign: typeof cell?.value === 'number' && !isEditing ? 'right' : 'left' }}
                    onClick={() => setActive({ index: item.index, column: index })}
                    onDoubleClick={() => corrections && setDraft(cell?.text ?? '')}
                  >
                    {isEditing && record ? (
                      <CellEditor
                        label={`${column.name}, row ${record.row}`}
                        text={cell?.text ?? ''}
                        correction={correction}
                        startWith={draft}
                        onSave={(value) => corrections!.correct(record.row, column.name, value)}
                        onUndo={(id) => corrections!.undo(id)}
                        onDone={() => {
                          setDraft(null);
                          frame.current?.focus();
                        }}
                      />
                    ) : (
                      (cell?.text ?? '')
                    )}
                  </span>
                );
              })}
            </Line>
          );
        })}
      </div>
    </Frame>
  );
}
