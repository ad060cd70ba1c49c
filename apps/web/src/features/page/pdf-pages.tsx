import { t } from '@mailbag/core/words';
import type { Field, PageSize } from '@mailbag/core';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { ReactNode } from 'react';
import type { Tone } from '../../theme';
import { FieldBoxes, widgetsByPage } from './field-boxes';
import { PageCanvas, PageGround, PageSheet } from './page-canvas';
import { usePdf } from './use-pdf';
import { useScale } from './use-scale';

export interface PdfPagesProps {
  /** What is drawn; null while it is not there yet. */
  bytes: Uint8Array | null;
  /** A file of like pages that is drawn over it; null: none. */
  layer?: Uint8Array | null;
  pages: readonly PageSize[];
  fields: readonly Field[];
  chosen?: string | null;
  /** Others that belong to it, as pieces of one answer do. */
  also?: readonly string[];
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
  /** What lies over a page. @param number 1-based @param scale pixels a point */
  over?: (number: number, size: PageSize, scale: number) => ReactNode;
}

const NONE: readonly string[] = [];

/** Pages drawn by pdf.js, with the boxes of the fields over them. The last picture stays until the next is ready. */
export function PdfPages({
  bytes,
  layer = null,
  pages,
  fields,
  chosen = null,
  also = NONE,
  pointed,
  onChoose,
  onPoint,
  named = false,
  marks,
  zoom = 1,
  over,
}: PdfPagesProps) {
  const ground = useRef<HTMLDivElement>(null);
  const scale = useScale(ground, pages, zoom);
  const { pdf, over: above, failed } = usePdf(bytes, layer);

  const target = chosen;
  useEffect(() => {
    if (!target || !ground.current) return;
    const box = ground.current.querySelector<HTMLElement>(`[data-field="${CSS.escape(target)}"]`);
    box?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [target]);

  const widgets = useMemo(() => widgetsByPage(fields), [fields]);
  const lit = new Set([chosen, pointed, ...also].filter((one) => typeof one === 'string'));
  // The same functions as long as the pages are there, so that boxes that stay as they are need not be drawn again.
  const ears = useRef({ onChoose, onPoint });
  ears.current = { onChoose, onPoint };
  const choose = useCallback((field: string) => ears.current.onChoose?.(field), []);
  const point = useCallback((field: string | null) => ears.current.onPoint?.(field), []);

  return (
    <PageGround ref={ground} tabIndex={0} aria-label={t`Pages`}>
      {failed && <p role="alert">{t`This page cannot be drawn here. The file itself is kept.`}</p>}
      {pages.map((page, index) => (
        <PageSheet
          key={index}
          style={{ width: page.width * scale, height: page.height * scale }}
          data-page={index + 1}
          aria-label={t`Page ${index + 1} of ${pages.length}`}
          role="group"
        >
          <PageCanvas pdf={pdf} layer={above} number={index + 1} width={page.width * scale} />
          <FieldBoxes
            widgets={widgets(index + 1)}
            size={page}
            number={index + 1}
            scale={scale}
            named={named}
            marks={marks}
            lit={widgets(index + 1)
              .flatMap(({ field: { name } }) => (lit.has(name) ? [name] : []))
              .join('\n')}
            onChoose={choose}
            onPoint={point}
          />
          {over?.(index + 1, page, scale)}
        </PageSheet>
      ))}
    </PageGround>
  );
}
