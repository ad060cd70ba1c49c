import { useLayoutEffect, useState } from 'react';
import type { PDFDocumentProxy } from '../../platform/pdf-reader';
import { openForDrawing } from '../../platform/pdf-reader';

/** A PDF opened for drawing. The last one stays until the next is ready. @param bytes null while they are not there yet */
export function usePdf(bytes: Uint8Array | null): { pdf: PDFDocumentProxy | null; failed: boolean } {
  const [pdf, setPdf] = useState<PDFDocumentProxy | null>(null);
  const [failed, setFailed] = useState(false);
  // Begun at once, not after the next picture of the screen.
  useLayoutEffect(() => {
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
  return { pdf, failed };
}
