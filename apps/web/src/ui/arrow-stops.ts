import type { KeyboardEvent } from 'react';

/** Rows that Page Up and Page Down leave behind. */
const PAGE = 10;

/**
 * The stop to which a key leads in a list, a tree or a grid of one tab stop (WAI-ARIA Authoring Practices, “Treegrid pattern”).
 * @param at the one that has the focus, 0-based
 * @returns null: the key leads nowhere
 */
export function stopFor(key: string, at: number, stops: number): number | null {
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: stops - 1, PageDown: at + PAGE, PageUp: at - PAGE }[key];
  return to === undefined || stops === 0 ? null : Math.max(0, Math.min(stops - 1, to));
}

const STOP = '[data-stop]';
const WITHIN = 'button:not([disabled]), a[href], input, select, textarea';

/** Moves the focus among the rows of a grid that is one tab stop, and from a row to what can be pressed in it and back. */
export function onArrowStops(event: KeyboardEvent<HTMLElement>): void {
  const { currentTarget: grid, key } = event;
  const target = event.target as HTMLElement;
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
  const row = target.closest<HTMLElement>(STOP);
  if (row !== null && row !== target) {
    const inside = [...row.querySelectorAll<HTMLElement>(WITHIN)];
    const step = { ArrowRight: 1, ArrowLeft: -1 }[key] ?? (key === 'Escape' ? -inside.length : null);
    if (step === null || !inside.includes(target)) return;
    event.preventDefault();
    return (inside[inside.indexOf(target) + step] ?? (step < 0 ? row : target)).focus();
  }
  if (row === null) return;
  if (key === 'ArrowRight') {
    const first = row.querySelector<HTMLElement>(WITHIN);
    if (!first) return;
    event.preventDefault();
    return first.focus();
  }
  const stops = [...grid.querySelectorAll<HTMLElement>(STOP)];
  const to = stopFor(key, stops.indexOf(row), stops.length);
  if (to === null) return;
  event.preventDefault();
  stops[to]!.focus();
  stops[to]!.scrollIntoView({ block: 'nearest' });
}
