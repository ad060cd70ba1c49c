import { useCallback, useEffect, useState } from 'react';
import styled from 'styled-components';
import type { Tone } from '../../theme';
import { color, tones as colours } from '../../theme';

const Sheet = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  z-index: 4;
`;

interface Line {
  key: string;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  tone: Tone;
  isLooked: boolean;
}

/** Lines from the boxes of the old edition to those that they became, as far as both are in sight. */
export function PairLines({
  board,
  pairs,
  tones,
  looked,
}: {
  board: React.RefObject<HTMLDivElement | null>;
  pairs: readonly { old: string; new: string }[];
  /** Of fields of the new edition that changed. */
  tones: ReadonlyMap<string, Tone>;
  looked: { old: string | null; new: string | null };
}) {
  const [lines, setLines] = useState<Line[]>([]);
  const measure = useCallback((): void => {
    if (!board.current) return;
    const frame = board.current.getBoundingClientRect();
    const seen = (side: string): Map<string, DOMRect> => {
      const pane = board.current!.querySelector(`[data-side="${side}"]`);
      if (!pane) return new Map();
      const { top, bottom } = pane.getBoundingClientRect();
      return new Map(
        [...pane.querySelectorAll<HTMLElement>('[data-field]')].flatMap((box): [string, DOMRect][] => {
          const rect = box.getBoundingClientRect();
          // The heading of the pane is no place for a line.
          return rect.top > top + 42 && rect.bottom < bottom ? [[box.dataset['field']!, rect]] : [];
        }),
      );
    };
    const [old, now] = [seen('old'), seen('new')];
    setLines(
      pairs.flatMap((pair): Line[] => {
        const [from, to] = [old.get(pair.old), now.get(pair.new)];
        if (!from || !to) return [];
        return [
          {
            key: pair.old,
            x1: from.right - frame.left,
            y1: (from.top + from.bottom) / 2 - frame.top,
            x2: to.left - frame.left,
            y2: (to.top + to.bottom) / 2 - frame.top,
            tone: tones.get(pair.new) ?? 'slate',
            isLooked: looked.old === pair.old,
          },
        ];
      }),
    );
  }, [board, pairs, tones, looked.old]);
  useEffect(() => {
    const frame = board.current;
    if (!frame) return;
    let waiting = 0;
    const soon = (): void => {
      cancelAnimationFrame(waiting);
      waiting = requestAnimationFrame(measure);
    };
    soon();
    const sizes = new ResizeObserver(soon);
    sizes.observe(frame);
    // Boxes come once the pages are read, and grow with their pane.
    const boxes = new MutationObserver((changes) => changes.some(({ target }) => !(target instanceof SVGElement)) && soon());
    boxes.observe(frame, { childList: true, subtree: true, attributes: true, attributeFilter: ['style'] });
    frame.addEventListener('scroll', soon, { capture: true, passive: true });
    return () => {
      cancelAnimationFrame(waiting);
      sizes.disconnect();
      boxes.disconnect();
      frame.removeEventListener('scroll', soon, { capture: true });
    };
  }, [board, measure]);
  return (
    <Sheet aria-hidden data-lines={lines.length}>
      {lines.map(({ key, x1, y1, x2, y2, tone, isLooked }) => {
        const bend = Math.max(24, (x2 - x1) / 3);
        return (
          <path
            key={key}
            d={`M${x1} ${y1} C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}`}
            fill="none"
            stroke={isLooked ? color.plum : colours[tone].ink}
            strokeWidth={isLooked ? 2.5 : 1}
            strokeOpacity={isLooked ? 1 : tone === 'slate' ? 0.25 : 0.6}
          />
        );
      })}
    </Sheet>
  );
}
