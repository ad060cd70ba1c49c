import type { Field, PageSize } from '@mailbag/core';
import { fieldLabel } from '@mailbag/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import type { PDFDocumentProxy } from '../../platform/pdf-reader';
import { openForDrawing } from '../../platform/pdf-reader';
import type { Tone } from '../../theme';
import { color, font, tones } from '../../theme';
import { nameEnd } from './field-facts';

const Ground = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: ${color.ground};
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  align-items: center;
`;
const Sheet = styled.div`
  position: relative;
  background: #fff;
  box-shadow: 0 1px 3px rgba(34, 48, 60, 0.25);
  flex: none;
  & > canvas {
    display: block;
    width: 100%;
    height: 100%;
  }
`;
const Box = styled.button<{ $named: boolean; $tone: Tone | null }>`
  position: absolute;
  padding: 0;
  border: ${({ $named, $tone }) => ($tone ? `2px solid ${tones[$tone].ink}` : $named ? `1px solid ${color.plum}` : '1px solid transparent')};
  background: ${({ $named, $tone }) => ($tone ? `${tones[$tone].ink}14` : $named ? 'rgba(106,44,80,0.07)' : 'transparent')};
  border-radius: 2px;
  cursor: pointer;
  overflow: visible;
  & > span {
    position: absolute;
    left: 0;
    top: 0;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    /* Where room is short, the beginning gives way: names of one form begin alike. */
    direction: rtl;
    font: 10px/12px ${font.mono};
    color: ${color.plumDark};
    padding: 0 2px;
    background: rgba(255, 255, 255, 0.8);
  }
  &:hover {
    border-color: ${color.plum};
    background: rgba(106, 44, 80, 0.1);
  }
  &[data-small] > span {
    display: none;
  }
  &:hover > span {
    display: block;
    max-width: none;
    z-index: 3;
    background: ${color.sheet};
    box-shadow: 0 0 0 1px ${color.line};
  }
  &[data-chosen] {
    border: 2px solid ${color.plum};
    background: rgba(106, 44, 80, 0.13);
    outline: 2px solid ${color.sheet};
  }
`;

/** Places a box of the page's own space on the page as it is seen; shares of its width and height. */
function placeBox(
  [l, b, r, t]: readonly [number, number, number, number],
  page: PageSize,
): { left: number; top: number; width: number; height: number } {
  const turned = page.rotation % 180 !== 0;
  const [w, h] = turned ? [page.height, page.width] : [page.width, page.height];
  const [x0, x1, y0, y1] = [l - page.left, r - page.left, b - page.bottom, t - page.bottom];
  const seen = {
    0: [x0, h - y1, x1, h - y0],
    90: [y0, x0, y1, x1],
    180: [w - x1, y0, w - x0, y1],
    270: [h - y1, w - x1, h - y0, w - x0],
  }[page.rotation] ?? [x0, h - y1, x1, h - y0];
  return {
    left: seen[0]! / page.width,
    top: seen[1]! / page.height,
    width: (seen[2]! - seen[0]!) / page.width,
    height: (seen[3]! - seen[1]!) / page.height,
  };
}

export interface PdfPagesProps {
  /** What is drawn; null while it is not there yet. */
  bytes: Uint8Array | null;
  pages: readonly PageSize[];
  fields: readonly Field[];
  chosen?: string | null;
  /** Field under the pointer in the list beside the page. */
  pointed?: string | null;
  onChoose?: (field: string) => void;
  onPoint?: (field: string | null) => void;
  /** Names of the fields are written over their boxes. */
  named?: boolean;
  /** Fields to be marked, with the tone of the mark. */
  marks?: ReadonlyMap<string, Tone>;
  /** 1: as wide as the pane. */
  zoom?: number;
}

/** Pages drawn by pdf.js, with the boxes of the fields over them. The last picture stays until the next is ready. */
export function PdfPages({
  bytes,
  pages,
  fields,
  chosen = null,
  pointed,
  onChoose,
  onPoint,
  named = false,
  marks,
  zoom = 1,
}: PdfPagesProps) {
  const ground = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(600);
  const [pdf, setPdf] = useState<PDFDocumentProxy | null>(null);
  const [failed, setFailed] = useState(false);

  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => entry && setRoom(entry.contentRect.width));
    if (ground.current) watch.observe(ground.current);
    return () => watch.disconnect();
  }, []);
  useEffect(() => {
    if (!bytes) return;
    let stale = false;
    openForDrawing(bytes).then(
      (next) => {
        if (stale) void next.destroy();
        else
          setPdf((before) => {
            // The old one is still being looked at until the new one is drawn.
            if (before) setTimeout(() => void before.destroy(), 2000);
            setFailed(false);
            return next;
          });
      },
      () => setFailed(true),
    );
    return () => {
      stale = true;
    };
  }, [bytes]);

  const target = chosen;
  useEffect(() => {
    if (!target || !ground.current) return;
    const box = ground.current.querySelector<HTMLElement>(`[data-field="${CSS.escape(target)}"]`);
    box?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [target]);

  const widest = Math.max(1, ...pages.map((page) => page.width));
  const scale = (Math.min(Math.max(260, room), 820) / widest) * zoom;
  return (
    <Ground ref={ground} tabIndex={0} aria-label="Pages">
      {failed && <p role="alert">This page cannot be drawn here. The file itself is kept.</p>}
      {pages.map((page, index) => (
        <Sheet
          key={index}
          style={{ width: page.width * scale, height: page.height * scale }}
          data-page={index + 1}
          aria-label={`Page ${index + 1} of ${pages.length}`}
          role="group"
        >
          <PageCanvas pdf={pdf} number={index + 1} width={page.width * scale} />
          {fields.flatMap((field) =>
            field.widgets.map((widget, at) => {
              if (widget.page !== index + 1 || widget.hidden) return null;
              const place = placeBox(widget.rect, page);
              const isFirst = field.widgets.findIndex((one) => !one.hidden && one.page > 0) === at;
              return (
                <Box
                  key={`${field.name} ${at}`}
                  $named={named}
                  $tone={marks?.get(field.name) ?? null}
                  data-small={place.width * page.width * scale < 34 || undefined}
                  data-chosen={field.name === chosen || field.name === pointed || undefined}
                  data-field={isFirst ? field.name : undefined}
                  tabIndex={-1}
                  aria-label={`${fieldLabel(field)}, page ${index + 1}`}
                  title={named ? undefined : fieldLabel(field)}
                  onClick={() => onChoose?.(field.name)}
                  onMouseEnter={() => onPoint?.(field.name)}
                  onMouseLeave={() => onPoint?.(null)}
                  style={{
                    left: `${place.left * 100}%`,
                    top: `${place.top * 100}%`,
                    width: `${place.width * 100}%`,
                    height: `${place.height * 100}%`,
                  }}
                >
                  {named && (
                    <span>
                      <bdi>{widget.onValue !== null ? `${nameEnd(field.name)} = ${widget.onValue}` : nameEnd(field.name)}</bdi>
                    </span>
                  )}
                </Box>
              );
            }),
          )}
        </Sheet>
      ))}
    </Ground>
  );
}

function PageCanvas({ pdf, number, width }: { pdf: PDFDocumentProxy | null; number: number; width: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!pdf || number > pdf.numPages) return;
    let stale = false;
    let cancel = (): void => undefined;
    void (async () => {
      const page = await pdf.getPage(number);
      const pixels = Math.min(2, window.devicePixelRatio || 1);
      const viewport = page.getViewport({ scale: (width / page.getViewport({ scale: 1 }).width) * pixels });
      // Drawn aside and shown at once, so that the page never flashes.
      const aside = document.createElement('canvas');
      aside.width = Math.ceil(viewport.width);
      aside.height = Math.ceil(viewport.height);
      const task = page.render({ canvas: aside, viewport, annotationMode: 1 });
      cancel = () => task.cancel();
      await task.promise;
      if (stale || !canvas.current) return;
      canvas.current.width = aside.width;
      canvas.current.height = aside.height;
      canvas.current.getContext('2d')?.drawImage(aside, 0, 0);
      canvas.current.dataset.drawn = String(Number(canvas.current.dataset.drawn ?? 0) + 1);
    })().catch((error: unknown) => {
      if (!stale && !(error instanceof Error && error.name === 'RenderingCancelledException')) console.warn(error);
    });
    return () => {
      stale = true;
      cancel();
    };
  }, [pdf, number, width]);
  return <canvas ref={canvas} aria-hidden />;
}
