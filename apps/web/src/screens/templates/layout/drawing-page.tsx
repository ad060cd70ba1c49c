import { t } from '@mailbag/core/words';
import { useDraggable } from '@dnd-kit/core';
import type { Drawn, SeenBox } from '@mailbag/core';
import type { PageSize } from '@mailbag/core';
import { memo, useRef } from 'react';
import styled from 'styled-components';
import { PageCanvas, PageSheet } from '../../../features/page/page-canvas';
import { useNear } from '../../../features/page/use-near';
import type { PDFDocumentProxy } from '../../../platform/pdf-reader';
import { color } from '../../../theme';
import { BlankBox, DrawnBox, OwnBox } from './drawn-box';
import type { Dragged } from './drag';
import { drawnLabel, toolFacts, toolOf } from './tools';

const Sheet = styled(PageSheet)`
  &[data-drawing] {
    cursor: crosshair;
    touch-action: none;
    & > button {
      cursor: crosshair;
    }
  }
  &:focus-visible {
    outline: 2px solid ${color.plum};
  }
`;
const Band = styled.div`
  position: absolute;
  border: 1px solid ${color.plum};
  background: rgba(106, 44, 80, 0.1);
  pointer-events: none;
  z-index: 3;
`;
const Guide = styled.div`
  position: absolute;
  background: ${color.lagoon};
  pointer-events: none;
  z-index: 3;
`;
const Scan = styled.p`
  position: absolute;
  left: 8px;
  top: 8px;
  margin: 0;
  padding: 4px 8px;
  font-size: 12px;
  background: ${color.ochreWash};
  border-radius: 4px;
`;

/** Something drawn with its place, the same objects as long as nothing about it changes. */
export interface Placed {
  drawn: Drawn;
  box: SeenBox;
}
/** A blank that is offered, by its place in the list of all. */
export interface OfferedBlank {
  index: number;
  label: string;
  box: SeenBox;
}

const lookOf = (drawn: Drawn): 'box' | 'round' | 'stamp' | 'line' => {
  if (drawn.what === 'stamp') return drawn.stamp.kind === 'line' ? 'line' : 'stamp';
  return drawn.field.kind === 'radio' ? 'round' : 'box';
};
const placed = ({ left, top, right, bottom }: SeenBox, scale: number): React.CSSProperties => ({
  left: left * scale,
  top: top * scale,
  width: (right - left) * scale,
  height: (bottom - top) * scale,
});

export interface DrawingPageProps {
  number: number;
  count: number;
  size: PageSize;
  scale: number;
  pdf: PDFDocumentProxy | null;
  items: readonly Placed[];
  own: readonly SeenBox[];
  blanks: readonly OfferedBlank[];
  pointedBlank: number | null;
  chosen: ReadonlySet<string>;
  /** What a hand is doing on this page; null: nothing. */
  dragged: Dragged | null;
  isDrawing: boolean;
  isScan: boolean;
  onFocus: (key: string) => void;
}

/** A page with what is drawn on it. One surface is dragged on, whatever lies under the hand: three hundred boxes cost no more than one. */
export const DrawingPage = memo(function DrawingPage(props: DrawingPageProps) {
  const { number, count, size, scale, pdf, items, own, blanks, pointedBlank, chosen, dragged, isDrawing, isScan, onFocus } = props;
  const sheet = useRef<HTMLElement | null>(null);
  const isNear = useNear(sheet);
  const { setNodeRef, listeners } = useDraggable({ id: number });
  return (
    <Sheet
      ref={(node: HTMLDivElement | null) => {
        sheet.current = node;
        setNodeRef(node);
      }}
      {...listeners}
      style={{ width: size.width * scale, height: size.height * scale }}
      data-page={number}
      data-drawing={isDrawing || undefined}
      aria-label={t`Page ${number} of ${count}`}
      role="group"
      tabIndex={0}
    >
      <PageCanvas pdf={pdf} number={number} width={size.width * scale} />
      {isScan && <Scan>{t`This page is a picture, as a scanner makes it. No blanks can be found on it: draw its fields by hand.`}</Scan>}
      {isNear && (
        <>
          {own.map((box, index) => (
            <OwnBox key={index} style={placed(box, scale)} />
          ))}
          {blanks.map(({ index, label, box }) => (
            <BlankBox
              key={index}
              type="button"
              tabIndex={-1}
              data-blank={index}
              data-pointed={index === pointedBlank || undefined}
              aria-label={t`Blank: ${label}`}
              title={t`${label}. Click to make it a field`}
              style={placed(box, scale)}
            />
          ))}
          {items.map(({ drawn, box }) => (
            <DrawnBox
              key={drawn.key}
              id={drawn.key}
              box={dragged?.boxes.get(drawn.key) ?? box}
              scale={scale}
              name={drawn.what === 'field' ? drawn.field.name : drawnLabel(drawn)}
              words={t`${drawnLabel(drawn)}, ${toolFacts[toolOf(drawn)].word}, page ${number}`}
              look={lookOf(drawn)}
              isChosen={chosen.has(drawn.key)}
              hasHandles={chosen.size === 1 && chosen.has(drawn.key)}
              onFocus={onFocus}
            />
          ))}
        </>
      )}
      {dragged?.band && <Band style={placed(dragged.band, scale)} />}
      {dragged?.x != null && <Guide style={{ left: dragged.x * scale, top: 0, bottom: 0, width: 1 }} />}
      {dragged?.y != null && <Guide style={{ top: dragged.y * scale, left: 0, right: 0, height: 1 }} />}
    </Sheet>
  );
});
