import { useEffect, useLayoutEffect, useRef } from 'react';
import styled from 'styled-components';
import type { PDFDocumentProxy } from '../../platform/pdf-reader';
import { canvasAside, showDrawn, startDrawing } from '../../platform/pdf-reader';
import { color } from '../../theme';
import { useNear } from './use-near';

/** What pages lie on. */
export const PageGround = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: ${color.ground};
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  align-items: safe center;
`;
export const PageSheet = styled.div`
  position: relative;
  background: #fff;
  box-shadow: 0 1px 3px rgba(34, 48, 60, 0.25);
  flex: none;
  /* What is drawn anew on it moves nothing around it. */
  contain: layout size style;
  & > canvas {
    display: block;
    width: 100%;
    height: 100%;
  }
`;
/** Pixels of one canvas: at 800 % a page would have more than a browser gives. */
const MOST_PIXELS = 16_000_000;

/** A page drawn aside, so that what is shown stays until it is whole. */
interface DrawnAside {
  done: Promise<HTMLCanvasElement>;
  cancel: () => void;
}

/** @param isOver what is not drawn on lets through what lies beneath */
function drawAside(pdf: PDFDocumentProxy, number: number, width: number, isOver: boolean): DrawnAside {
  let isCancelled = false;
  let cancel = (): void => undefined;
  const done = (async () => {
    const page = await pdf.getPage(number);
    const plain = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
    const pixels = Math.min(2, window.devicePixelRatio || 1, Math.sqrt(MOST_PIXELS / (plain.width * plain.height)));
    const viewport = plain.clone({ scale: plain.scale * pixels });
    const canvas = canvasAside();
    canvas.width = Math.ceil(viewport.width);
    canvas.height = Math.ceil(viewport.height);
    if (isCancelled) return canvas;
    // Of a canvas that has no context yet pdf.js takes one that lets nothing through.
    if (isOver) canvas.getContext('2d', { alpha: true });
    const task = startDrawing(page, { canvas, viewport, annotationMode: 1, ...(isOver && { background: 'rgba(0, 0, 0, 0)' }) });
    cancel = () => task.cancel();
    await task.promise;
    return canvas;
  })();
  return { done, cancel: () => ((isCancelled = true), cancel()) };
}

interface PageCanvasProps {
  pdf: PDFDocumentProxy | null;
  /** Drawn over it; null: nothing. */
  layer?: PDFDocumentProxy | null;
  /** 1-based. */
  number: number;
  /** Of the page on the screen. */
  width: number;
}
/** A page of a PDF, drawn while it is on the screen or nearly. What lies beneath a layer is drawn once. */
export function PageCanvas({ pdf, layer = null, number, width }: PageCanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const beneath = useRef<{ pdf: PDFDocumentProxy; number: number; width: number; aside: DrawnAside } | null>(null);
  const isNear = useNear(canvas);
  // Begun at once, not after the next picture of the screen.
  useLayoutEffect(() => {
    if (!pdf || !isNear || number > pdf.numPages) return;
    let stale = false;
    let below = beneath.current;
    // Not begun again for each letter that is typed while it is being drawn.
    if (below?.pdf !== pdf || below.number !== number || below.width !== width) {
      below?.aside.cancel();
      const begun = { pdf, number, width, aside: drawAside(pdf, number, width, false) };
      beneath.current = below = begun;
      begun.aside.done.catch(() => {
        if (beneath.current === begun) beneath.current = null;
      });
    }
    const above = layer && number <= layer.numPages ? drawAside(layer, number, width, true) : null;
    Promise.all([below.aside.done, above?.done]).then(
      ([drawn, over]) => {
        if (stale || !canvas.current) return;
        showDrawn([drawn, ...(over ? [over] : [])], canvas.current);
        canvas.current.dataset.drawn = String(Number(canvas.current.dataset.drawn ?? 0) + 1);
      },
      (error: unknown) => {
        if (!stale && !(error instanceof Error && error.name === 'RenderingCancelledException')) console.warn(error);
      },
    );
    return () => {
      stale = true;
      above?.cancel();
    };
  }, [pdf, layer, isNear, number, width]);
  useEffect(() => () => beneath.current?.aside.cancel(), []);
  return <canvas ref={canvas} aria-hidden />;
}
