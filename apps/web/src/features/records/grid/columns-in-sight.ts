import type { Virtualizer } from '@tanstack/react-virtual';
import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo } from 'react';

/** A cell of a row that is drawn, and the pixels of those that are passed over in front of it. */
export interface DrawnColumn {
  column: number;
  gap: number;
}

/** Where columns are drawn of which only some are in sight: each with what is passed over before it. @param shown in their order */
export function withGaps(shown: readonly number[], widths: readonly number[]): DrawnColumn[] {
  let next = 0;
  return shown.map((column) => {
    const gap = widths.slice(next, column).reduce((sum, width) => sum + width, 0);
    next = column + 1;
    return { column, gap };
  });
}

/**
 * The columns that are drawn: those in sight, and `held` ones wherever they are. A wide sheet has five times as many, and drawing all of them holds up who scrolls.
 * @param held such as the frozen column and the active one
 */
export function useColumnsInSight(
  frame: { current: HTMLElement | null },
  widths: readonly number[],
  held: readonly number[],
): readonly DrawnColumn[] {
  const sideways: Virtualizer<HTMLElement, Element> = useVirtualizer({
    horizontal: true,
    count: widths.length,
    getScrollElement: () => frame.current,
    estimateSize: (column) => widths[column]!,
    overscan: 2,
    // The rows and the columns are drawn together.
    useFlushSync: false,
    rangeExtractor: (range) =>
      [...new Set([...defaultRangeExtractor(range), ...held.filter((one) => one >= 0 && one < widths.length)])].sort(
        (one, other) => one - other,
      ),
  });
  useEffect(() => sideways.measure(), [sideways, widths]);
  const items = sideways.getVirtualItems().map(({ index }) => index);
  const shown = (items.length > 0 ? items : widths.map((_, column) => column)).join();
  return useMemo(() => (shown === '' ? [] : withGaps(shown.split(',').map(Number), widths)), [shown, widths]);
}
