import { useLayoutEffect, useRef } from 'react';
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

/** A page of a PDF, drawn while it is on the screen or nearly. @param number 1-based @param width of the page on the screen */
export function PageCanvas({ pdf, number, width }: { pdf: PDFDocumentProxy | null; number: number; width: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const isNear = useNear(canvas);
  // Begun at once, not after the next picture of the screen.
  useLayoutEffect(() => {
    if (!pdf || !isNear || number > pdf.numPages) return;
    let stale = false;
    let cancel = (): void => undefined;
    void (async () => {
      const page = await pdf.getPage(number);
      const plain = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
      const pixels = Math.min(2, window.devicePixelRatio || 1, Math.sqrt(MOST_PIXELS / (plain.width * plain.height)));
      const viewport = plain.clone({ scale: plain.scale * pixels });
      // Drawn aside and shown at once, so that the page never flashes.
      const aside = canvasAside();
      aside.width = Math.ceil(viewport.width);
      aside.height = Math.ceil(viewport.height);
      const task = startDrawing(page, { canvas: aside, viewport, annotationMode: 1 });
      cancel = () => task.cancel();
      await task.promise;
      if (stale || !canvas.current) return;
      showDrawn(aside, canvas.current);
      canvas.current.dataset.drawn = String(Number(canvas.current.dataset.drawn ?? 0) + 1);
    })().catch((error: unknown) => {
      if (!stale && !(error instanceof Error && error.name === 'RenderingCancelledException')) console.warn(error);
    });
    return () => {
      stale = true;
      cancel();
    };
  }, [pdf, isNear, number, width]);
  return <canvas ref={canvas} aria-hidden />;
}
