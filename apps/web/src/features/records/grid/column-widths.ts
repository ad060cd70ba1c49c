import type { Column } from '@mailbag/core';
import { columnKindName } from '@mailbag/core';
import { useMemo, useState } from 'react';

/** Pixels. */
const NARROWEST = 48;
const WIDEST = 900;
/** By which a key makes a column wider or narrower. */
export const WIDTH_STEP = 16;

/** The width of a column by what stands in it, px. */
export const usualWidth = (column: Pick<Column, 'name' | 'kind' | 'longest'>): number =>
  Math.min(
    280,
    Math.max(96, (column.name.length + columnKindName(column.kind).length + 1) * 7 + 36, Math.min(column.longest.length, 34) * 7.6 + 20),
  );
export const boundedWidth = (width: number): number => Math.max(NARROWEST, Math.min(WIDEST, Math.round(width)));

/** Widths that a person chose for the columns of a source, kept in this browser. */
export function useColumnWidths(
  sourceId: number,
  columns: readonly Column[],
): { widths: readonly number[]; widen: (name: string, width: number) => void } {
  const key = `mailbag.widths.${sourceId}`;
  const [chosen, choose] = useState<Readonly<Record<string, number>>>(() => {
    try {
      return (JSON.parse(localStorage.getItem(key) ?? '{}') as Record<string, number> | null) ?? {};
    } catch {
      return {};
    }
  });
  // The same array as long as they are the same, since rows are drawn anew when it is another one.
  const widths = useMemo(
    () => columns.map((column) => (Object.hasOwn(chosen, column.name) ? boundedWidth(Number(chosen[column.name])) : usualWidth(column))),
    [columns, chosen],
  );
  return {
    widths,
    widen: (name, width) => {
      const next = { ...chosen, [name]: boundedWidth(width) };
      choose(next);
      localStorage.setItem(key, JSON.stringify(next));
    },
  };
}
