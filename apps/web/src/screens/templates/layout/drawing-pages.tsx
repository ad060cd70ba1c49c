import { t } from '@mailbag/core/words';
import type { DragEndEvent, DragMoveEvent, DragStartEvent } from '@dnd-kit/core';
import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import type { Edge, Guides, PageSize, SeenBox } from '@mailbag/core';
import { guidesOf, pageOf } from '@mailbag/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { PageGround } from '../../../features/page/page-canvas';
import { usePdf } from '../../../features/page/use-pdf';
import { useScale } from '../../../features/page/use-scale';
import { useMayChange } from '../../../ui/rights';
import type { Dragged, Hold } from './drag';
import { dragged, isWithin } from './drag';
import type { OfferedBlank, Placed } from './drawing-page';
import { DrawingPage } from './drawing-page';
import type { Tool } from './tools';
import { silentDrag } from '../../../ui/silent-drag';

/** Pixels within which guides draw. */
const REACH = 6;
const NONE: never[] = [];

export interface DrawingPagesProps {
  bytes: Uint8Array | null;
  pages: readonly PageSize[];
  scans: readonly boolean[];
  items: readonly Placed[];
  /** Lines of each page, as they are seen. */
  lines: readonly (readonly SeenBox[])[];
  /** Fields that the file has by itself, by page. */
  own: readonly (readonly SeenBox[])[];
  blanks: readonly (readonly OfferedBlank[])[];
  pointedBlank: number | null;
  chosen: ReadonlySet<string>;
  tool: Tool;
  zoom: number;
  onChoose: (keys: string[]) => void;
  onMove: (boxes: ReadonlyMap<string, SeenBox>) => void;
  /** @param box null: it was only clicked, where `at` says */
  onDraw: (page: number, box: SeenBox | null, at: { x: number; y: number }, goesOn: boolean) => void;
  onTakeBlanks: (indexes: number[]) => void;
  groundRef: React.RefObject<HTMLDivElement | null>;
}

/** The pages of a template as a drawing board. */
export function DrawingPages(props: DrawingPagesProps) {
  const { bytes, pages, scans, items, lines, own, blanks, pointedBlank, chosen, tool, zoom, groundRef } = props;
  const { onChoose, onMove, onDraw, onTakeBlanks } = props;
  const mayChange = useMayChange();
  const { pdf, failed } = usePdf(bytes);
  const scale = useScale(groundRef, pages, zoom);
  const [now, setNow] = useState<{ page: number; dragged: Dragged } | null>(null);
  const hold = useRef<{ page: number; hold: Hold } | null>(null);
  const keys = useRef({ isFree: false, goesOn: false });
  useEffect(() => {
    const note = (event: KeyboardEvent): void => {
      keys.current = { isFree: event.altKey, goesOn: event.shiftKey };
    };
    window.addEventListener('keydown', note);
    window.addEventListener('keyup', note);
    return () => {
      window.removeEventListener('keydown', note);
      window.removeEventListener('keyup', note);
    };
  }, []);

  const byPage = useMemo(() => {
    const sorted: Placed[][] = pages.map(() => []);
    for (const item of items) sorted[pageOf(item.drawn) - 1]?.push(item);
    return sorted;
  }, [items, pages]);

  const guidesFor = (page: number, without: ReadonlySet<string>): Guides =>
    guidesOf(lines[page - 1] ?? NONE, [
      ...byPage[page - 1]!.filter(({ drawn }) => !without.has(drawn.key)).map(({ box }) => box),
      ...(own[page - 1] ?? NONE),
    ]);
  const placeOf = (page: number, event: { clientX: number; clientY: number }): { x: number; y: number } => {
    const sheet = groundRef.current!.querySelector(`[data-page="${page}"]`)!.getBoundingClientRect();
    return { x: (event.clientX - sheet.left) / scale, y: (event.clientY - sheet.top) / scale };
  };

  const start = ({ active, activatorEvent }: DragStartEvent): void => {
    const page = Number(active.id);
    const event = activatorEvent as PointerEvent;
    const target = event.target as HTMLElement;
    const key = target.closest<HTMLElement>('[data-key]')?.dataset['key'];
    const at = placeOf(page, event);
    if (tool !== 'select' || !key) {
      hold.current = {
        page,
        hold: { what: tool === 'select' || tool === 'take' ? 'band' : 'draw', at, guides: guidesFor(page, new Set()) },
      };
      return;
    }
    const edges = target.dataset['edges']?.split(' ') as Edge[] | undefined;
    // What is taken hold of moves with all that is chosen on its page.
    const moving = edges || !chosen.has(key) ? new Set([key]) : chosen;
    const held = byPage[page - 1]!.filter(({ drawn }) => moving.has(drawn.key));
    const guides = guidesFor(page, moving);
    const [first] = held;
    if (!first) return;
    hold.current = {
      page,
      hold: edges
        ? {
            what: 'resize',
            key,
            box: first.box,
            edges,
            guides,
            isSquare: first.drawn.what === 'stamp' && first.drawn.stamp.kind === 'code' && first.drawn.stamp.symbology !== 'code128',
          }
        : { what: 'move', boxes: new Map(held.map(({ drawn, box }) => [drawn.key, box])), guides },
    };
  };
  const come = ({ delta }: Pick<DragMoveEvent, 'delta'>): Dragged | null => {
    if (!hold.current) return null;
    const { page, hold: held } = hold.current;
    return dragged(held, delta.x / scale, delta.y / scale, keys.current.isFree ? 0 : REACH / scale, pages[page - 1]!);
  };
  const move = (event: DragMoveEvent): void => {
    const next = come(event);
    if (next && hold.current) setNow({ page: hold.current.page, dragged: next });
  };
  const end = (event: DragEndEvent): void => {
    const done = come(event);
    const held = hold.current;
    hold.current = null;
    setNow(null);
    if (!done || !held) return;
    if (!done.band) return onMove(done.boxes);
    const { band } = done;
    if (held.hold.what === 'draw') return onDraw(held.page, band, { x: band.left, y: band.top }, keys.current.goesOn);
    const within = byPage[held.page - 1]!.filter(({ box }) => isWithin(box, band)).map(({ drawn }) => drawn.key);
    if (tool === 'take') onTakeBlanks((blanks[held.page - 1] ?? NONE).filter(({ box }) => isWithin(box, band)).map(({ index }) => index));
    else onChoose(within);
  };
  const cancel = (): void => {
    hold.current = null;
    setNow(null);
  };

  const press = (event: React.PointerEvent): void => {
    if (event.button !== 0 || tool !== 'select') return;
    const key = (event.target as HTMLElement).closest<HTMLElement>('[data-key]')?.dataset['key'];
    if (!key) return;
    if (event.shiftKey) onChoose(chosen.has(key) ? [...chosen].filter((one) => one !== key) : [...chosen, key]);
    else if (!chosen.has(key)) onChoose([key]);
  };
  const click = (event: React.MouseEvent): void => {
    const target = event.target as HTMLElement;
    const page = Number(target.closest<HTMLElement>('[data-page]')?.dataset['page'] ?? 0);
    const blank = target.closest<HTMLElement>('[data-blank]')?.dataset['blank'];
    // Enter on a box is a click without a place.
    if (!page || event.detail === 0) return;
    if (tool !== 'select' && tool !== 'take') return onDraw(page, null, placeOf(page, event), event.shiftKey);
    if (blank !== undefined) return onTakeBlanks([Number(blank)]);
    if (!target.closest('[data-key]') && !event.shiftKey) onChoose([]);
  };

  const onFocus = useMemo(() => (key: string) => onChoose([key]), [onChoose]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 2 } }));
  return (
    <DndContext
      sensors={mayChange ? sensors : NONE}
      accessibility={silentDrag}
      onDragStart={start}
      onDragMove={move}
      onDragEnd={end}
      onDragCancel={cancel}
    >
      <PageGround ref={groundRef} aria-label={t`Pages`} onPointerDown={press} onClick={click}>
        {failed && <p role="alert">{t`This page cannot be drawn here. The file itself is kept.`}</p>}
        {pages.map((size, index) => (
          <DrawingPage
            key={index}
            number={index + 1}
            count={pages.length}
            size={size}
            scale={scale}
            pdf={pdf}
            items={byPage[index]!}
            own={own[index] ?? NONE}
            blanks={blanks[index] ?? NONE}
            pointedBlank={pointedBlank}
            chosen={chosen}
            dragged={now?.page === index + 1 ? now.dragged : null}
            isDrawing={tool !== 'select'}
            isScan={scans[index] ?? false}
            onFocus={onFocus}
          />
        ))}
      </PageGround>
    </DndContext>
  );
}
