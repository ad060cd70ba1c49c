import { t } from '@mailbag/core/words';
import type { ReactNode, Ref } from 'react';
import { memo, useLayoutEffect, useRef } from 'react';
import type { ListColumn } from './column';
import { RowLine, TickPlace } from './list-looks';

interface Props<T> {
  row: T;
  index: number;
  columns: readonly ListColumn<T>[];
  tracks: string;
  name: string;
  /** Pixels from the top of the list; null: it stands where it comes, as on paper. */
  top: number | null;
  isStop: boolean;
  isLink: boolean;
  isChosen: boolean;
  /** null: rows are not picked here. */
  isPicked: boolean | null;
  onPick: (index: number, isRange: boolean) => void;
  measure: Ref<HTMLDivElement> | undefined;
}

/** What can be pressed within a row is reached from it with the arrows, and is no stop of its own. */
export const WITHIN = 'button, a[href], input, select, textarea, [role="button"]';
/** Where text is typed. */
export const TYPED = 'input:not([type="checkbox"]), textarea, select';

function RowOf<T>({ row, index, columns, tracks, name, top, isStop, isLink, isChosen, isPicked, onPick, measure }: Props<T>): ReactNode {
  const line = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => line.current?.querySelectorAll<HTMLElement>(WITHIN).forEach((one) => (one.tabIndex = -1)));
  return (
    <RowLine
      ref={(element) => {
        line.current = element;
        if (typeof measure === 'function') measure(element);
      }}
      role="row"
      data-index={index}
      data-stop=""
      aria-rowindex={index + 2}
      tabIndex={isStop ? 0 : -1}
      {...(isPicked === null ? {} : { 'aria-selected': isPicked })}
      {...(isChosen && { 'aria-current': 'true' as const })}
      {...(isLink && { 'data-link': '' })}
      {...(top === null && { 'data-static': '' })}
      style={{ gridTemplateColumns: tracks, ...(top !== null && { transform: `translateY(${top}px)` }) }}
    >
      {isPicked !== null && (
        <span role="gridcell" style={{ overflow: 'visible' }}>
          <TickPlace>
            <input
              type="checkbox"
              aria-label={t`Pick ${name}`}
              checked={isPicked}
              onChange={() => undefined}
              onClick={(event) => onPick(index, event.shiftKey)}
            />
          </TickPlace>
        </span>
      )}
      {columns.map(({ id, cell, text, isNumber, isTools }) => (
        <div role="gridcell" key={id} {...(isNumber && { 'data-number': '' })} {...(isTools && { 'data-print': 'no' })}>
          {cell ? cell(row) : text(row)}
        </div>
      ))}
    </RowLine>
  );
}
/** A row of a list: a stop that says its cells, with a tick where rows are picked. */
export const ListRow = memo(RowOf) as typeof RowOf;
