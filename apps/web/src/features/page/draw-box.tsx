import { t } from '@mailbag/core/words';
import type { PageSize, SeenBox } from '@mailbag/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { color } from '../../theme';

const Over = styled.div`
  position: absolute;
  inset: 0;
  z-index: 4;
  cursor: crosshair;
  touch-action: none;
  &:focus-visible {
    outline: 3px solid ${color.plum};
  }
`;
const Drawn = styled.div`
  position: absolute;
  border: 2px solid ${color.plum};
  background: rgba(106, 44, 80, 0.12);
  pointer-events: none;
  display: grid;
  place-items: center;
  font-size: 12px;
  color: ${color.plum};
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
`;
/** Points: a box that is only clicked, the smallest that is drawn, and how far an arrow key moves it. */
const USUAL = { width: 170, height: 42 };
const [LEAST, STEP] = [6, 6];

interface Props {
  number: number;
  size: PageSize;
  /** Pixels a point. */
  scale: number;
  /** What is drawn on this page; null: nothing is. */
  box: SeenBox | null;
  /** What stands in it. */
  label: string;
  onBox: (box: SeenBox) => void;
}

/** A box that stays on its page. */
const within = ({ left, top, right, bottom }: SeenBox, { width, height }: PageSize): SeenBox => {
  const x = Math.min(Math.max(0, left), Math.max(0, width - (right - left)));
  const y = Math.min(Math.max(0, top), Math.max(0, height - (bottom - top)));
  return { left: x, top: y, right: Math.min(width, x + right - left), bottom: Math.min(height, y + bottom - top) };
};
const around = (x: number, y: number): SeenBox => ({
  left: x - USUAL.width / 2,
  top: y - USUAL.height / 2,
  right: x + USUAL.width / 2,
  bottom: y + USUAL.height / 2,
});

/** Lets one box be drawn on a page: by a click, by dragging, or by Enter and the arrow keys. */
export function DrawBox({ number, size, scale, box, label, onBox }: Props) {
  const start = useRef<{ x: number; y: number } | null>(null);
  const at = ({ currentTarget, clientX, clientY }: React.PointerEvent): { x: number; y: number } => {
    const { left, top } = currentTarget.getBoundingClientRect();
    return { x: (clientX - left) / scale, y: (clientY - top) / scale };
  };
  const drag = (from: { x: number; y: number }, to: { x: number; y: number }): SeenBox | null =>
    Math.abs(to.x - from.x) < LEAST || Math.abs(to.y - from.y) < LEAST
      ? null
      : { left: Math.min(from.x, to.x), top: Math.min(from.y, to.y), right: Math.max(from.x, to.x), bottom: Math.max(from.y, to.y) };
  const moves: Record<string, [number, number]> = {
    ArrowLeft: [-STEP, 0],
    ArrowRight: [STEP, 0],
    ArrowUp: [0, -STEP],
    ArrowDown: [0, STEP],
  };
  return (
    <Over
      tabIndex={0}
      role="button"
      aria-label={t`Draw the box on page ${number}. Enter puts it in the middle, the arrow keys move it.`}
      onKeyDown={(event) => {
        const move = moves[event.key];
        if (event.key === 'Enter' && !box) onBox(within(around(size.width / 2, size.height / 2), size));
        else if (move && box)
          onBox(
            within({ left: box.left + move[0], top: box.top + move[1], right: box.right + move[0], bottom: box.bottom + move[1] }, size),
          );
        else return;
        event.preventDefault();
      }}
      onPointerDown={(event) => {
        start.current = at(event);
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        const drawn = start.current && drag(start.current, at(event));
        if (drawn) onBox(within(drawn, size));
      }}
      onPointerUp={(event) => {
        const from = start.current;
        start.current = null;
        if (from) onBox(within(drag(from, at(event)) ?? around(from.x, from.y), size));
      }}
    >
      {box && (
        <Drawn
          style={{
            left: box.left * scale,
            top: box.top * scale,
            width: (box.right - box.left) * scale,
            height: (box.bottom - box.top) * scale,
          }}
        >
          {label}
        </Drawn>
      )}
    </Over>
  );
}
