import { plural, t } from '@mailbag/core/words';
import type { Column } from '@mailbag/core';
import { columnKindName, isMailbagError } from '@mailbag/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, ChevronsUpDown } from 'lucide-react';
import type { ClipboardEvent, KeyboardEvent, PointerEvent } from 'react';
import { useRef, useState } from 'react';
import { sentenceOf } from '../../../api/client';
import { Empty } from '../../../ui/layout';
import { nextOrder, orderText, readOrder } from '../../../ui/list/list-order';
import { Notice } from '../../../ui/mark';
import { useMayChange } from '../../../ui/rights';
import { useShortcutHelp } from '../../../ui/shortcuts';
import { useAddress } from '../../../ui/use-address';
import { CellEditor } from '../cell-editor';
import type { Corrections } from '../use-corrections';
import type { Block, Place, Range } from './cell-range';
import { blockOf, cellFor, cellsIn, holds, pastedInto, within } from './cell-range';
import { readCells, writeCells } from './clipboard-cells';
import { useColumnsInSight } from './columns-in-sight';
import { WIDTH_STEP, useColumnWidths } from './column-widths';
import { GridBar, onlyOf } from './grid-bar';
import { Edge, Frame, Heads, OrderButton, ROW, ROW_NUMBER, Whole } from './grid-looks';
import { GridRow, cellId } from './grid-row';
import { useSeenRecords } from './seen-records';

/** Cells that can be copied, or changed in one step. */
const MOST_CELLS = 10_000;
const KEYS = [
  { keys: t`Enter F2`, what: t`Change the value; a letter replaces it` },
  { keys: t`Shift + arrows`, what: t`Pick a range` },
  { keys: t`Ctrl C, Ctrl X, Ctrl V`, what: t`Copy, cut, paste; from and to spreadsheets` },
  { keys: t`Del`, what: t`Empty the cells` },
  { keys: t`Alt ← →`, what: t`Make the column narrower or wider` },
  { keys: 'F8', what: t`Next finding` },
];

/** The column of a heading in words. */
const about = (column: Column): string =>
  t`${column.name}: ${columnKindName(column.kind)}, ${column.empty} empty, ${column.distinct >= 1000 ? t`over 1,000` : column.distinct} different`;

interface Props {
  sourceId: number;
  columns: readonly Column[];
  total: number;
  corrections?: Corrections;
  /** The column that stays where it is when one goes to the side; null: none. */
  keyColumn: string | null;
  /** Places of records with a finding; left out: there is no mailing that would know. */
  flagged?: readonly number[];
  /** A heading was chosen. */
  onColumn?: (name: string) => void;
}

/**
 * All records of a source as a sheet; only what is in sight is asked for and drawn. Order, search and choice stand in the address. With `corrections`
 * values are changed in place, copied, pasted and replaced.
 */
export function RecordGrid({ sourceId, columns, total, corrections: given, keyColumn, flagged, onColumn }: Props) {
  const mayChange = useMayChange();
  const corrections = mayChange ? given : undefined;
  const { query, put } = useAddress();
  const frame = useRef<HTMLDivElement>(null);
  const [range, setRange] = useState<Range | null>(null);
  const [draft, setDraft] = useState<string | null>(null);
  const [says, say] = useState<string | null>(null);
  const { widths, widen } = useColumnWidths(sourceId, columns);
  useShortcutHelp(KEYS);

  const names = columns.map(({ name }) => name);
  const order = readOrder(query.get('order'), names);
  const find = query.get('find') ?? '';
  const findIn = names.find((name) => name === query.get('in')) ?? null;
  const only = onlyOf(query.get('only'), flagged !== undefined);
  const isView = order !== null || find.trim() !== '' || (only !== null && only !== 'flagged');
  const view = new URLSearchParams({
    ...(order && { order: order.column, ...(order.isDown && { down: 'yes' }) }),
    ...(findIn !== null && { column: findIn }),
    ...(find.trim() !== '' && { text: find.trim() }),
    ...(only !== null && only !== 'flagged' && { only }),
  });

  const [sight, setSight] = useState<readonly number[]>([]);
  const seen = useSeenRecords(sourceId, total, isView ? view.toString() : '', only === 'flagged' ? (flagged ?? []) : null, sight);
  const rows = useVirtualizer({
    count: seen.count,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 6,
    useFlushSync: false,
    scrollPaddingStart: ROW,
  });
  const items = rows.getVirtualItems();
  // What is drawn decides what is asked for, and what there is decides what can be drawn.
  const drawn = items.map(({ index }) => index);
  if (drawn.join() !== sight.join()) setSight(drawn);

  const active = range && within(range.anchor, seen.count, columns.length);
  const end = range && within(range.end, seen.count, columns.length);
  const block: Block | null = active && end && seen.count > 0 ? blockOf({ anchor: active, end }) : null;

  const shown = useColumnsInSight(frame, widths, [names.indexOf(keyColumn ?? ''), active?.column ?? -1]);
  const whole = ROW_NUMBER + widths.reduce((sum, width) => sum + width, 0);

  const show = ({ index, column }: Place): void => {
    rows.scrollToIndex(index);
    const box = frame.current;
    if (!box) return;
    const frozen = columns[column]?.name === keyColumn ? 0 : (widths[names.indexOf(keyColumn ?? '')] ?? 0);
    const left = widths.slice(0, column).reduce((sum, width) => sum + width, 0);
    if (left - frozen < box.scrollLeft) box.scrollLeft = Math.max(0, left - frozen);
    else if (left + widths[column]! + ROW_NUMBER > box.scrollLeft + box.clientWidth)
      box.scrollLeft = left + widths[column]! + ROW_NUMBER - box.clientWidth;
  };
  const move = (to: Place, extends_ = false): void => {
    const place = within(to, seen.count, columns.length);
    setRange(extends_ && range ? { anchor: range.anchor, end: place } : { anchor: place, end: place });
    show(place);
  };
  const change = async (
    placed: readonly { index: number; column: number; text: string }[],
    told: (changed: number) => string,
  ): Promise<void> => {
    if (!corrections || placed.length === 0) return;
    if (placed.length > MOST_CELLS) return say(t`${plural(placed.length, 'cell')} are too many at once. Pick ${MOST_CELLS} at most.`);
    const first = Math.min(...placed.map(({ index }) => index));
    const records = await seen.stretch(first, Math.max(...placed.map(({ index }) => index)));
    corrections.correctMany(
      placed.flatMap(({ index, column, text }) => {
        const record = records[index - first];
        return record ? [{ row: record.row, column: names[column]!, value: text }] : [];
      }),
      told,
    );
  };
  const empty = (picked: Block): Promise<void> =>
    change(
      Array.from({ length: Math.min(cellsIn(picked), MOST_CELLS + 1) }, (_, at) => {
        const wide = picked.right - picked.left + 1;
        return { index: picked.top + Math.floor(at / wide), column: picked.left + (at % wide), text: '' };
      }),
      (changed) => t`${plural(changed, 'value')} emptied.`,
    );
  const nextFinding = (): void => {
    const from = active?.index ?? -1;
    const places = (flagged ?? []).map((ordinal) => seen.indexOf(ordinal)).filter((index) => index >= 0).sort((one, other) => one - other); // prettier-ignore
    const next = places.find((index) => index > from) ?? places[0];
    if (next === undefined) return say(t`None of the records shown has a finding.`);
    move({ index: next, column: active?.column ?? 0 });
    frame.current?.focus();
  };
  const goToRow = async (row: number): Promise<void> => {
    // A sheet has few rows that are left out, so a row lies at most that many places before its number.
    for (let to = Math.min(seen.count, row) - 1; to >= 0; to -= 200) {
      const found = (await seen.stretch(Math.max(0, to - 199), to)).findIndex((record) => record.row === row);
      if (found < 0) continue;
      move({ index: Math.max(0, to - 199) + found, column: active?.column ?? 0 });
      frame.current?.focus();
      return say(null);
    }
    say(t`None of the records shown is in row ${row}.`);
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    if (draft !== null || event.target !== frame.current) return;
    const { key, shiftKey, altKey } = event;
    const isControl = event.ctrlKey || event.metaKey;
    const place = (shiftKey ? end : active) ?? { index: 0, column: 0 };
    const handled = ((): boolean => {
      if (altKey && active && (key === 'ArrowLeft' || key === 'ArrowRight')) {
        const step = key === 'ArrowRight' ? WIDTH_STEP : -WIDTH_STEP;
        return (widen(names[active.column]!, widths[active.column]! + step), true);
      }
      if (altKey) return false;
      if (key === 'F8' && flagged) return (nextFinding(), true);
      if (isControl && key.toLowerCase() === 'a') {
        const last = within({ index: Infinity, column: Infinity }, seen.count, columns.length);
        return (setRange({ anchor: { index: 0, column: 0 }, end: last }), true);
      }
      const page = Math.max(1, Math.floor((frame.current?.clientHeight ?? 300) / ROW) - 2);
      const to = cellFor({ key, ctrlKey: isControl }, place, seen.count, columns.length, page);
      if (to) return (move(to, shiftKey), true);
      if (!active || isControl) return false;
      if (key === 'Escape' && block && cellsIn(block) > 1) return (setRange({ anchor: active, end: active }), true);
      if (!corrections) return false;
      if (key === 'Enter' || key === 'F2') return (setDraft(seen.recordAt(active.index)?.cells[active.column]?.text ?? ''), true);
      if ((key === 'Delete' || key === 'Backspace') && block) return (void empty(block), true);
      if (key.length === 1) return (setDraft(key), true);
      return false;
    })();
    if (handled) event.preventDefault();
  };
  /** @returns whether it lies on the clipboard now */
  const copy = (event: ClipboardEvent, picked: Block): boolean => {
    event.preventDefault();
    if (cellsIn(picked) > MOST_CELLS) {
      say(t`${plural(cellsIn(picked), 'cell')} are too many to copy at once. Pick ${MOST_CELLS} at most.`);
      return false;
    }
    const textsOf = (records: ReturnType<typeof seen.known>): string[][] =>
      (records ?? []).map(({ cells }) => cells.slice(picked.left, picked.right + 1).map(({ text }) => text));
    const known = seen.known(picked.top, picked.bottom);
    if (known) writeCells(event.clipboardData, textsOf(known));
    else say(t`Not all of it has been loaded yet. Scroll through it once, then copy again.`);
    return known !== null;
  };
  const onPaste = (event: ClipboardEvent): void => {
    if (!block || !corrections || draft !== null || event.target !== frame.current) return;
    event.preventDefault();
    const { placed, beyond } = pastedInto(block, readCells(event.clipboardData), seen.count, columns.length);
    say(beyond > 0 ? t`${plural(beyond, 'cell')} did not fit: the sheet is not that large.` : null);
    void change(placed, (changed) => t`${plural(changed, 'value')} pasted.`);
  };
  const placeOf = (target: EventTarget): Place | null => {
    const cell = (target as HTMLElement).closest<HTMLElement>('[role=gridcell]');
    return cell && { index: Number(cell.dataset.index), column: Number(cell.dataset.at) };
  };
  const onPointer = (event: PointerEvent): void => {
    const place = placeOf(event.target);
    if (!place || (event.target as HTMLElement).closest('input, button')) return;
    if (event.type === 'pointerdown') setRange(event.shiftKey && range ? { ...range, end: place } : { anchor: place, end: place });
    else if (event.buttons === 1 && range && draft === null && !holdsOnly(range, place)) setRange({ ...range, end: place });
  };
  const widening = (name: string, width: number) => (event: PointerEvent<HTMLElement>) => {
    const from = event.clientX;
    const edge = event.currentTarget;
    edge.setPointerCapture(event.pointerId);
    edge.onpointermove = ({ clientX }) => widen(name, width + clientX - from);
    edge.onpointerup = () => (edge.onpointermove = null);
  };

  const editorAt = (index: number) => {
    const record = seen.recordAt(index);
    if (!active || draft === null || active.index !== index || !record || !corrections) return null;
    const column = columns[active.column]!;
    return (
      <CellEditor
        label={t`${column.name}, row ${record.row}`}
        text={record.cells[active.column]?.text ?? ''}
        correction={seen.correctionsAt(index).find((one) => one.row === record.row && one.column === column.name) ?? null}
        startWith={draft}
        onSave={(value) => corrections.correct(record.row, column.name, value)}
        onUndo={(id) => corrections.undo(id)}
        onDone={(step) => {
          setDraft(null);
          if (step) move({ index: active.index + step.down, column: active.column + step.right });
          if (step !== null) frame.current?.focus();
        }}
      />
    );
  };
  const failed = seen.error;
  return (
    <Whole>
      <GridBar
        columns={columns}
        text={find}
        column={findIn}
        only={only}
        seen={seen.count}
        total={total}
        isWaiting={seen.isWaiting}
        flagged={flagged?.length ?? null}
        onChange={put}
        onLook={seen.prepareSearch}
        onRow={(row) => void goToRow(row)}
        onNextFinding={nextFinding}
        corrections={corrections}
      />
      {says && (
        <div style={{ padding: '0 12px 8px' }}>
          <Notice tone="ochre">{says}</Notice>
        </div>
      )}
      <Frame
        ref={frame}
        tabIndex={0}
        role="grid"
        aria-label={t`Records`}
        aria-rowcount={seen.count + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        aria-activedescendant={
          active && items.some(({ index }) => index === active.index) ? cellId(active.index, active.column) : undefined
        }
        onKeyDown={onKeyDown}
        onCopy={(event) => block && draft === null && copy(event, block)}
        onCut={(event) => {
          if (!block || draft !== null) return;
          // What could not be copied is not taken away.
          if (copy(event, block) && corrections) void empty(block);
        }}
        onPaste={onPaste}
        onPointerDown={onPointer}
        onPointerMove={onPointer}
        onDoubleClick={({ target }) => {
          const place = placeOf(target);
          if (place && corrections) setDraft(seen.recordAt(place.index)?.cells[place.column]?.text ?? '');
        }}
      >
        <Heads role="row" aria-rowindex={1}>
          <span className="row" role="columnheader">{t`Row`}</span>
          {columns.map((column, index) => {
            const way = order?.column !== column.name ? 'none' : order.isDown ? 'descending' : 'ascending';
            const words = (
              <>
                <b>{column.name}</b> {columnKindName(column.kind)}
              </>
            );
            return (
              <span
                key={column.name}
                style={{ width: widths[index] }}
                role="columnheader"
                aria-colindex={index + 2}
                aria-sort={way}
                title={about(column)}
                data-frozen={column.name === keyColumn || undefined}
              >
                {onColumn ? (
                  <button
                    onClick={() => onColumn(column.name)}
                    aria-label={t`${column.name} ${columnKindName(column.kind)}: how it is read`}
                  >
                    {words}
                  </button>
                ) : (
                  words
                )}
                <OrderButton
                  type="button"
                  aria-label={t`Order by ${column.name}`}
                  data-on={way === 'none' ? undefined : true}
                  onClick={() => put({ order: orderText(nextOrder(order, column.name)) })}
                >
                  {way === 'none' ? <ChevronsUpDown size={13} /> : way === 'ascending' ? <ArrowUp size={13} /> : <ArrowDown size={13} />}
                </OrderButton>
                <Edge onPointerDown={widening(column.name, widths[index]!)} />
              </span>
            );
          })}
        </Heads>
        {failed && (
          <div style={{ padding: 12, position: 'sticky', left: 0, width: 'min(100%, 640px)' }}>
            <Notice tone={isMailbagError(failed) && failed.code === 'account-values-hidden' ? 'plain' : 'brick'}>
              {sentenceOf(failed)}
            </Notice>
          </div>
        )}
        {!failed && seen.count === 0 && !seen.isWaiting && (
          <Empty title={t`No matches`}>{t`No record of this source matches. Search for something else, or in another column.`}</Empty>
        )}
        <div
          role="rowgroup"
          style={{
            height: failed ? 0 : rows.getTotalSize(),
            width: whole,
            minWidth: '100%',
            position: 'relative',
            overflow: failed ? 'hidden' : undefined,
          }}
        >
          {items.map(({ index, start, key }) => {
            const isIn = block !== null && index >= block.top && index <= block.bottom;
            return (
              <GridRow
                key={key}
                record={seen.recordAt(index)}
                index={index}
                top={start}
                columns={columns}
                shown={shown}
                widths={widths}
                corrections={seen.correctionsAt(index)}
                frozen={keyColumn}
                active={active?.index === index ? active.column : null}
                from={isIn ? block.left : null}
                to={isIn ? block.right : null}
                editor={editorAt(index)}
              />
            );
          })}
        </div>
      </Frame>
    </Whole>
  );
}

/** Whether a range ends at a place already. */
const holdsOnly = ({ end }: Range, place: Place): boolean =>
  holds({ top: end.index, bottom: end.index, left: end.column, right: end.column }, place);
