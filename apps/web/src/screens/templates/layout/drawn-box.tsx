import type { SeenBox } from '@mailbag/core';
import { memo } from 'react';
import styled from 'styled-components';
import { color, font } from '../../../theme';

/** Where a box can be taken hold of to be made larger: which of its edges move. */
const handles = ['left top', 'top', 'right top', 'right', 'right bottom', 'bottom', 'left bottom', 'left'];

const Frame = styled.button`
  position: absolute;
  padding: 0;
  border: 1px solid ${color.plum};
  background: rgba(106, 44, 80, 0.08);
  border-radius: 1px;
  cursor: move;
  text-align: left;
  touch-action: none;
  & > b {
    position: absolute;
    inset: 0;
    overflow: hidden;
    font: 400 10px/12px ${font.mono};
    color: ${color.plumDark};
    padding: 0 2px;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  &[data-round] {
    border-radius: 50%;
  }
  &[data-stamp] {
    border-style: dashed;
    background: repeating-conic-gradient(rgba(34, 48, 60, 0.28) 0 25%, transparent 0 50%) 0 0 / 8px 8px;
  }
  &[data-line] {
    border-style: dashed;
    background: ${color.sheet};
  }
  &[data-chosen] {
    border: 2px solid ${color.plum};
    background-color: rgba(106, 44, 80, 0.14);
    z-index: 2;
  }
  &:focus-visible {
    outline: 2px solid ${color.plum};
    outline-offset: 2px;
  }
`;
const Handle = styled.i`
  position: absolute;
  width: 9px;
  height: 9px;
  margin: -5px;
  background: ${color.sheet};
  border: 1.5px solid ${color.plum};
`;

const places: Record<string, [left: string, top: string, cursor: string]> = {
  'left top': ['0', '0', 'nwse-resize'],
  top: ['50%', '0', 'ns-resize'],
  'right top': ['100%', '0', 'nesw-resize'],
  right: ['100%', '50%', 'ew-resize'],
  'right bottom': ['100%', '100%', 'nwse-resize'],
  bottom: ['50%', '100%', 'ns-resize'],
  'left bottom': ['0', '100%', 'nesw-resize'],
  left: ['0', '50%', 'ew-resize'],
};

export interface DrawnBoxProps {
  id: string;
  box: SeenBox;
  scale: number;
  name: string;
  /** For who does not see it: what it is, what it is called and where it stands. */
  words: string;
  look: 'box' | 'round' | 'stamp' | 'line';
  isChosen: boolean;
  /** It alone is chosen, and can be made larger. */
  hasHandles: boolean;
  onFocus: (id: string) => void;
}

/** Something drawn on a page. Drawn anew only when it is different. */
export const DrawnBox = memo(function DrawnBox({ id, box, scale, name, words, look, isChosen, hasHandles, onFocus }: DrawnBoxProps) {
  const [width, height] = [(box.right - box.left) * scale, (box.bottom - box.top) * scale];
  return (
    <Frame
      type="button"
      data-key={id}
      data-chosen={isChosen || undefined}
      data-round={look === 'round' || undefined}
      data-stamp={look === 'stamp' || undefined}
      data-line={look === 'line' || undefined}
      aria-label={words}
      aria-pressed={isChosen}
      title={name}
      onFocus={({ target }) => target.matches(':focus-visible') && onFocus(id)}
      style={{ left: box.left * scale, top: box.top * scale, width, height }}
    >
      {width > 26 && look !== 'stamp' && look !== 'round' && <b aria-hidden>{name}</b>}
      {hasHandles &&
        handles
          .filter((edges) => edges.includes(' ') || (edges === 'top' || edges === 'bottom' ? width > 40 : height > 40))
          .map((edges) => {
            const [left, top, cursor] = places[edges]!;
            return <Handle key={edges} data-edges={edges} style={{ left, top, cursor }} />;
          })}
    </Frame>
  );
});

/** A blank that was found and could be a field. */
export const BlankBox = styled.button`
  position: absolute;
  padding: 0;
  border: 1px dashed ${color.lagoon};
  background: rgba(15, 101, 112, 0.08);
  cursor: copy;
  &:hover,
  &[data-pointed] {
    background: rgba(15, 101, 112, 0.22);
    border-style: solid;
  }
`;

/** A field that the file has by itself. */
export const OwnBox = styled.div`
  position: absolute;
  border: 1px solid ${color.slate};
  background: rgba(74, 90, 106, 0.1);
  pointer-events: none;
`;
