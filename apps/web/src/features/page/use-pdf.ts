import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { PDFDocumentProxy } from '../../platform/pdf-reader';
import { openForDrawing } from '../../platform/pdf-reader';

interface Shown {
  pdf: PDFDocumentProxy | null;
  /** Drawn over it; null: nothing. */
  over: PDFDocumentProxy | null;
}

/** Milliseconds for which a file is still there that is being looked at until the next one is drawn. */
const GRACE = 2000;
const closeSoon = (pdf: PDFDocumentProxy | null): void => void (pdf && setTimeout(() => void pdf.destroy(), GRACE));

/**
 * A PDF opened for drawing. The last one stays until the next is ready.
 * @param bytes null while they are not there yet. The same array is opened once.
 * @param layer a file that is drawn over it; null: none
 */
export function usePdf(bytes: Uint8Array | null, layer: Uint8Array | null = null): Shown & { failed: boolean } {
  const [shown, setShown] = useState<Shown>({ pdf: null, over: null });
  const [failed, setFailed] = useState(false);
  const opened = useRef<{ bytes: Uint8Array; pdf: Promise<PDFDocumentProxy> } | null>(null);
  const open = useRef(shown);
  // Begun at once, not after the next picture of the screen.
  useLayoutEffect(() => {
    if (!bytes) return;
    let stale = false;
    const before = opened.current;
    const below = before?.bytes === bytes ? before : (opened.current = { bytes, pdf: openForDrawing(bytes) });
    Promise.all([below.pdf, layer && openForDrawing(layer)]).then(
      ([pdf, over]) => {
        if (stale) {
          closeSoon(over);
          if (opened.current !== below && open.current.pdf !== pdf) closeSoon(pdf);
          return;
        }
        closeSoon(open.current.over);
        if (open.current.pdf !== pdf) closeSoon(open.current.pdf);
        open.current = { pdf, over };
        setShown(open.current);
        setFailed(false);
      },
      () => stale || setFailed(true),
    );
    return () => {
      stale = true;
    };
  }, [bytes, layer]);
  useEffect(
    () => () => {
      closeSoon(open.current.pdf);
      closeSoon(open.current.over);
      open.current = { pdf: null, over: null };
      opened.current = null;
    },
    [],
  );
  return { ...shown, failed };
}
