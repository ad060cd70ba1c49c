import { count, counted, t } from '@mailbag/core/words';
import { savedName } from '@mailbag/core';
import { getFilteredRowModel, getSortedRowModel, useReactTable } from '@tanstack/react-table';
import type { ColumnDef } from '@tanstack/react-table';
import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import type { KeyboardEvent, MouseEvent } from 'react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { VisuallyHidden } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { stopFor } from '../arrow-stops';
import { useShortcutHelp } from '../shortcuts';
import { csvOf, saveText } from './as-seen';
import { smallestWidth, tracksOf } from './column';
import { growingRowModel } from './growing-rows';
import { useListAddress } from './list-address';
import { useSavedColumns } from './saved-columns';
import { ListBar } from './list-bar';
import type { ListProps } from './list-props';
import { GAP, HeadLine, ListFrame, TickPlace } from './list-looks';
import { ListRow, TYPED, WITHIN } from './list-row';
import { compareCells, holdsWords, nextOrder, orderText, readOrder } from './list-order';
import { nothingPicked, pick, pickAll, pickedOf } from './picking';
import { useSavedScroll } from './use-saved-scroll';
import { useOnPaper } from './use-on-paper';

/** Pixels that a row takes until it is measured. */
const ROW = 34;
/** Pixels that the tick takes. */
const TICK = 24;
const KEYS = [
  { keys: t`↑ ↓ Home End PgUp PgDn`, what: t`From row to row` },
  { keys: '→ ←', what: t`Buttons and links of a row` },
];
const PICK_KEYS = [
  { keys: t`Space`, what: t`Pick the row` },
  { keys: t`Shift ↑ ↓`, what: t`Pick a range` },
  { keys: t`Ctrl A`, what: t`Pick all that match` },
];

/**
 * Things of one kind: ordered by a heading, searched, picked with the mouse and the keyboard, with columns that are chosen, saved as they are seen,
 * printed, and one tab stop (WAI-ARIA Authoring Practices, “Grids: interactive tabular data”). Order, search and place stand in the address.
 */
export function List<T, K extends string | number>(props: ListProps<T, K>) {
  const {
    id,
    label,
    noun,
    columns,
    rows,
    keyOf,
    nameOf,
    to,
    chosen = null,
    onChoose,
    actions,
    searchHint,
    lead,
    tools,
    empty,
    far,
    isBare,
    keepsBar = false,
    place,
  } = props;
  const { read, put } = useListAddress(place);
  const navigate = useNavigate();
  const [saved, keep] = useSavedColumns(id);
  const [picking, setPicking] = useState(nothingPicked as { picked: ReadonlySet<K>; anchor: K | null });
  const [at, setAt] = useState(0);
  const frame = useRef<HTMLDivElement>(null);
  const isOnPaper = useOnPaper();
  useShortcutHelp(actions ? [...KEYS, ...PICK_KEYS] : KEYS);

  const wanted = read('find') ?? '';
  const order = far
    ? far.order
    : readOrder(
        read('order'),
        columns.map((column) => column.id),
      );
  const defs = useMemo(
    () =>
      columns.map(({ id: column, value, text }): ColumnDef<T> => ({
        id: column,
        // What is missing comes last, whichever way.
        accessorFn: (row) => (value ? value(row) : text(row)) ?? undefined,
        sortUndefined: 'last',
        sortingFn: (one, other) => compareCells(one.getValue(column), other.getValue(column)),
      })),
    [columns],
  );
  // The same as long as nobody changes them: with others, each row would be drawn anew at every step of scrolling.
  const shown = useMemo(
    () => columns.filter((column) => column.isFixed || column.isTools || (saved[column.id] ?? !column.isExtra)),
    [columns, saved],
  );
  const table = useReactTable<T>({
    data: rows as T[],
    columns: defs,
    state: { sorting: order && !far ? [{ id: order.column, desc: order.isDown }] : [], globalFilter: wanted.trim() },
    getRowId: (row) => String(keyOf(row)),
    getCoreRowModel: growingRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    globalFilterFn: (row, _, words: string) => holdsWords(columns.map(({ text }) => text(row.original)).join(' '), words),
    getColumnCanGlobalFilter: () => true,
    manualSorting: far !== undefined,
    // It has no pages, and would go back to its first one each time that it is given rows.
    autoResetAll: false,
  });
  const seen = table.getRowModel().rows;
  const keys = useMemo(() => seen.map((row) => keyOf(row.original)), [seen, keyOf]);
  const held = useMemo(() => (picking.picked.size === 0 ? picking : pickedOf(picking, new Set(rows.map(keyOf)))), [picking, rows, keyOf]);
  const picked = held.picked.size === 0 ? [] : rows.filter((row) => held.picked.has(keyOf(row)));
  const stop = Math.min(at, seen.length - 1);

  // The same as long as the rows are: with another one, all of them are placed anew.
  const getItemKey = useCallback((index: number) => keys[index] ?? index, [keys]);
  const virtual = useVirtualizer({
    count: seen.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 4,
    useFlushSync: false,
    getItemKey,
    // The row that has the focus stays, wherever one has scrolled to.
    rangeExtractor: (range) =>
      [...new Set([...defaultRangeExtractor(range), ...(stop >= 0 ? [stop] : [])])].sort((one, other) => one - other),
  });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  const { hasMore = false, onEnd } = far ?? {};
  useEffect(() => {
    if (hasMore && last >= seen.length - 30) onEnd?.();
  }, [hasMore, last, seen.length, onEnd]);
  useSavedScroll(frame, virtual, seen.length, read('at'), put);

  // The chosen one comes into view, also one that an address names; then it stays where it is while others come in.
  const chosenAt = chosen === null ? -1 : keys.indexOf(chosen);
  const shownChosen = useRef<K | null>(null);
  useEffect(() => {
    if (chosenAt >= 0 && shownChosen.current !== chosen) {
      virtual.scrollToIndex(chosenAt);
      setAt(chosenAt);
    }
    if (chosenAt >= 0) shownChosen.current = chosen;
  }, [chosen, chosenAt, virtual]);

  /** The row that is to have the focus; null: where it is. */
  const wantsFocus = useRef<number | null>(null);
  const goTo = (next: number): void => {
    setAt(next);
    wantsFocus.current = next;
    if (next >= 0) virtual.scrollToIndex(next);
  };
  // The row may only be drawn once the list has been scrolled to it.
  useEffect(() => {
    const next = wantsFocus.current;
    const line = next !== null && frame.current?.querySelector<HTMLElement>(next < 0 ? '[data-head]' : `[data-index="${next}"]`);
    if (!line) return;
    wantsFocus.current = null;
    line.focus({ preventScroll: true });
  });

  const open = (index: number): void => {
    const row = seen[index]?.original;
    if (row === undefined) return;
    if (to) void navigate(to(row));
    else onChoose?.(keyOf(row));
  };
  const onPick = useCallback(
    (index: number, isRange: boolean) => setPicking((before) => pick(before, keys, index, isRange ? 'range' : 'toggle')),
    [keys],
  );
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>): void => {
    const { key, shiftKey } = event;
    const target = event.target as HTMLElement;
    if (event.altKey || event.defaultPrevented) return;
    const line = target.closest<HTMLElement>('[data-stop]');
    if (!line) return;
    // In a line of text the arrows move the caret.
    if (target.matches(TYPED)) return;
    const within = [...line.querySelectorAll<HTMLElement>(WITHIN)].filter((one) => !one.matches(':disabled'));
    const handled = ((): boolean => {
      if (line !== target) {
        const step = { ArrowRight: 1, ArrowLeft: -1 }[key] ?? (key === 'Escape' ? -within.length : null);
        if (step === null) return false;
        (within[within.indexOf(target) + step] ?? (step < 0 ? line : target)).focus();
        return true;
      }
      if (event.ctrlKey || event.metaKey) {
        if (key.toLowerCase() !== 'a' || !actions) return false;
        setPicking((before) => pickAll(before, keys));
        return true;
      }
      if (key === 'ArrowRight') return (within[0]?.focus(), within.length > 0);
      if (at < 0 && key === 'ArrowDown') return (goTo(0), true);
      if (at <= 0 && key === 'ArrowUp') return (goTo(-1), true);
      if (key === 'Escape' && held.picked.size > 0) return (setPicking(nothingPicked), true);
      if (key === 'Enter' && at >= 0) return (open(at), true);
      if (key === ' ' && at >= 0) return (actions ? onPick(at, shiftKey) : open(at), true);
      const next = stopFor(key, Math.max(0, at), seen.length);
      if (next === null) return false;
      if (shiftKey && actions) {
        setPicking((before) =>
          pick(before.anchor === null ? { ...before, anchor: keys[Math.max(0, at)] ?? null } : before, keys, next, 'range'),
        );
      } else if (onChoose) onChoose(keys[next]!);
      goTo(next);
      return true;
    })();
    if (handled) event.preventDefault();
  };
  const onClick = (event: MouseEvent<HTMLDivElement>): void => {
    const target = event.target as HTMLElement;
    const line = target.closest<HTMLElement>('[data-index]');
    // What can be pressed says itself what it does; whoever marks text wants the text.
    if (!line || target.closest('button, a, input, label') || !window.getSelection()?.isCollapsed) return;
    const index = Number(line.dataset.index);
    setAt(index);
    if (actions && (event.ctrlKey || event.metaKey || event.shiftKey)) onPick(index, event.shiftKey);
    else open(index);
  };

  const tracks = `${actions ? `${TICK}px ` : ''}${tracksOf(shown)}`;
  const width = smallestWidth([...shown, ...(actions ? [{ minWidth: TICK }] : [])], GAP);
  const line = (index: number, top: number | null) => {
    const row = seen[index]!.original;
    return (
      <ListRow
        key={keys[index]}
        row={row}
        index={index}
        columns={shown}
        tracks={tracks}
        name={nameOf(row)}
        top={top}
        isStop={index === stop && at >= 0}
        isLink={to !== undefined || onChoose !== undefined}
        isChosen={keys[index] === chosen}
        isPicked={actions ? held.picked.has(keys[index]!) : null}
        onPick={onPick}
        measure={top === null ? undefined : virtual.measureElement}
      />
    );
  };
  const title = label[0]!.toUpperCase() + label.slice(1);
  const isNarrowed = wanted.trim() !== '';
  const says = isNarrowed ? t`${counted(seen.length, noun[0], noun[1])} of ${count(rows.length)}` : counted(rows.length, noun[0], noun[1]);
  return (
    <>
      {!isBare && (rows.length > 0 || keepsBar) && (
        <ListBar
          label={label}
          searchHint={searchHint ?? null}
          wanted={wanted}
          onWanted={(text) => put({ find: text, at: null })}
          says={hasMore ? '' : says}
          withPicked={actions && held.picked.size > 0 ? actions(picked, () => setPicking(nothingPicked)) : null}
          pickedSays={t`${counted(held.picked.size, noun[0], noun[1])} picked`}
          onClear={() => setPicking(nothingPicked)}
          lead={lead}
          tools={tools}
          columns={columns
            .filter((column) => !column.isFixed && !column.isTools)
            .map((column) => ({ id: column.id, head: column.head, isShown: shown.includes(column) }))}
          onColumns={(wantedColumns) =>
            keep(Object.fromEntries(columns.map((column) => [column.id, column.isFixed === true || wantedColumns.has(column.id)])))
          }
          onSave={
            far
              ? null
              : () => {
                  const day = new Date().toISOString().slice(0, 10);
                  const name = savedName([title, wanted.trim() || null], day, 'csv');
                  saveText(csvOf(shown, seen.map((row) => row.original)), name, 'text/csv'); // prettier-ignore
                }
          }
        />
      )}
      <ListFrame
        ref={frame}
        // More rows may come than have been read so far (WAI-ARIA 1.2, aria-rowcount).
        {...(seen.length > 0 && {
          role: 'grid',
          'aria-label': title,
          'aria-rowcount': hasMore ? -1 : seen.length + 1,
          'aria-multiselectable': actions !== undefined,
        })}
        onKeyDown={onKeyDown}
        onClick={onClick}
        onFocus={({ target }) => {
          const index = target.closest<HTMLElement>('[data-index]')?.dataset.index;
          if (index !== undefined && Number(index) !== at) setAt(Number(index));
          else if (target.closest('[data-head]') && at >= 0) setAt(-1);
        }}
      >
        {seen.length === 0 ? (
          empty(isNarrowed)
        ) : (
          <div style={{ minWidth: width }}>
            <HeadLine
              role="row"
              data-head=""
              data-stop=""
              aria-rowindex={1}
              tabIndex={at < 0 ? 0 : -1}
              style={{ gridTemplateColumns: tracks }}
            >
              {actions && (
                <span role="columnheader">
                  <TickPlace>
                    <input
                      type="checkbox"
                      tabIndex={-1}
                      aria-label={t`Pick all that match`}
                      checked={held.picked.size > 0 && held.picked.size >= keys.length}
                      onChange={({ target }) => setPicking(target.checked ? (before) => pickAll(before, keys) : nothingPicked)}
                    />
                  </TickPlace>
                </span>
              )}
              {shown.map((column) => {
                const way = order?.column !== column.id ? 'none' : order.isDown ? 'descending' : 'ascending';
                return (
                  <span
                    role="columnheader"
                    key={column.id}
                    {...(column.isNumber && { 'data-number': '' })}
                    {...(!column.isTools && !column.isUnordered && { 'aria-sort': way })}
                  >
                    {column.isTools ? (
                      <VisuallyHidden>{column.head}</VisuallyHidden>
                    ) : column.isUnordered ? (
                      column.head
                    ) : (
                      <button
                        type="button"
                        tabIndex={-1}
                        onClick={() => {
                          const next = nextOrder(order, column.id);
                          if (far) far.onOrder(next);
                          else put({ order: orderText(next), at: null });
                        }}
                      >
                        {column.head}
                        {way === 'ascending' && <ArrowUp size={12} aria-hidden />}
                        {way === 'descending' && <ArrowDown size={12} aria-hidden />}
                      </button>
                    )}
                  </span>
                );
              })}
            </HeadLine>
            {isOnPaper ? (
              <div role="rowgroup">{seen.map((_, index) => line(index, null))}</div>
            ) : (
              <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
                {items.map((item) => line(item.index, item.start))}
              </div>
            )}
          </div>
        )}
      </ListFrame>
    </>
  );
}
