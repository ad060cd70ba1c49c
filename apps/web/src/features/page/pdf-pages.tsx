import type { Field, PageSize } from '@mailbag/core';
import { fieldLabel, seenBox } from '@mailbag/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import type { Tone } from '../../theme';
import { color, font, tones } from '../../theme';
import { nameEnd } from './field-facts';
import { PageCanvas, PageGround, PageSheet } from './page-canvas';
import { usePdf } from './use-pdf';

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
  const { pdf, failed } = usePdf(bytes);

  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => entry && setRoom(entry.contentRect.width));
    if (ground.current) watch.observe(ground.current);
    return () => watch.disconnect();
  }, []);
  const target = chosen;
  useEffect(() => {
    if (!target || !ground.current) return;
    const box = ground.current.querySelector<HTMLElement>(`[data-field="${CSS.escape(target)}"]`);
    box?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [target]);

  const widest = Math.max(1, ...pages.map((page) => page.width));
  const scale = (Math.min(Math.max(260, room), 820) / widest) * zoom;
  return (
    <PageGround ref={ground} tabIndex={0} aria-label="Pages">
      {failed && <p role="alert">This page cannot be drawn here. The file itself is kept.</p>}
      {pages.map((page, index) => (
        <PageSheet
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
              const { left, top, right, bottom } = seenBox(widget.rect, page);
              const isFirst = field.widgets.findIndex((one) => !one.hidden && one.page > 0) === at;
              return (
                <Box
                  key={`${field.name} ${at}`}
                  $named={named}
                  $tone={marks?.get(field.name) ?? null}
                  data-small={(right - left) * scale < 34 || undefined}
                  data-chosen={field.name === chosen || field.name === pointed || undefined}
                  data-field={isFirst ? field.name : undefined}
                  tabIndex={-1}
                  aria-label={`${fieldLabel(field)}, page ${index + 1}`}
                  title={named ? undefined : fieldLabel(field)}
                  onClick={() => onChoose?.(field.name)}
                  onMouseEnter={() => onPoint?.(field.name)}
                  onMouseLeave={() => onPoint?.(null)}
                  style={{
                    left: left * scale,
                    top: top * scale,
                    width: (right - left) * scale,
                    height: (bottom - top) * scale,
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
        </PageSheet>
      ))}
    </PageGround>
  );
}
