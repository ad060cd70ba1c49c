import type { CorrectionAnswer } from '@mailbag/contract';
import type { Column, SourceRecord } from '@mailbag/core';
import type { ReactNode } from 'react';
import { Fragment, memo } from 'react';
import { correctionWords } from '../cell-editor';
import type { DrawnColumn } from './columns-in-sight';
import { Line } from './grid-looks';

interface Props {
  record: SourceRecord | undefined;
  index: number;
  top: number;
  columns: readonly Column[];
  /** Those that are drawn. */
  shown: readonly DrawnColumn[];
  widths: readonly number[];
  corrections: readonly CorrectionAnswer[];
  /** Column that stays where it is when one goes to the side; null: none. */
  frozen: string | null;
  /** Column of the active cell; null: it is in another row. */
  active: number | null;
  /** First and last column of what is picked, in this row. */
  from: number | null;
  to: number | null;
  /** In place of the active cell while it is changed. */
  editor: ReactNode;
}

export const cellId = (index: number, column: number): string => `cell-${index}-${column}`;

/** A record as a row of the grid. */
export const GridRow = memo(function GridRow({
  record,
  index,
  top,
  columns,
  shown,
  widths,
  corrections,
  frozen,
  active,
  from,
  to,
  editor,
}: Props) {
  return (
    <Line role="row" aria-rowindex={index + 2} style={{ transform: `translateY(${top}px)` }}>
      <span className="row" role="rowheader">
        {record?.row ?? '…'}
      </span>
      {shown.map(({ column: at, gap }) => {
        const { name } = columns[at]!;
        const cell = record?.cells[at];
        const isActive = active === at;
        const correction = record && corrections.find((one) => one.row === record.row && one.column === name);
        const isPicked = isActive || (from !== null && to !== null && at >= from && at <= to);
        return (
          <Fragment key={name}>
            {gap > 0 && <i style={{ width: gap }} />}
            <span
              id={cellId(index, at)}
              role="gridcell"
              aria-colindex={at + 2}
              aria-selected={isPicked}
              data-at={at}
              data-index={index}
              data-active={isActive || undefined}
              data-corrected={correction ? true : undefined}
              data-editing={(isActive && editor !== null) || undefined}
              data-frozen={name === frozen || undefined}
              title={correction ? correctionWords(correction) : cell?.text}
              style={{ width: widths[at], textAlign: typeof cell?.value === 'number' && !(isActive && editor) ? 'right' : 'left' }}
            >
              {isActive && editor !== null ? editor : (cell?.text ?? '')}
            </span>
          </Fragment>
        );
      })}
    </Line>
  );
});
