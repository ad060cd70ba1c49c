import { t } from '@mailbag/core/words';
import type { Field, FieldWidget, PageSize } from '@mailbag/core';
import { fieldLabel, seenBox } from '@mailbag/core';
import { memo } from 'react';
import styled from 'styled-components';
import type { Tone } from '../../theme';
import { color, font, tones } from '../../theme';
import { nameEnd } from './field-facts';

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

/** A box of a field on one page. `isFirst`: it is the one that is scrolled to. */
export interface PlacedWidget {
  field: Field;
  widget: FieldWidget;
  at: number;
  isFirst: boolean;
}

const NOTHING: readonly PlacedWidget[] = [];
/** The boxes of fields by their pages, 1-based; the same lists as long as the fields are. */
export function widgetsByPage(fields: readonly Field[]): (page: number) => readonly PlacedWidget[] {
  const pages = new Map<number, PlacedWidget[]>();
  for (const field of fields) {
    const first = field.widgets.findIndex((one) => !one.hidden && one.page > 0);
    field.widgets.forEach((widget, at) => {
      if (widget.hidden || widget.page < 1) return;
      const placed = { field, widget, at, isFirst: at === first };
      const there = pages.get(widget.page);
      if (there) there.push(placed);
      else pages.set(widget.page, [placed]);
    });
  }
  return (page) => pages.get(page) ?? NOTHING;
}

interface Props {
  widgets: readonly PlacedWidget[];
  size: PageSize;
  number: number;
  scale: number;
  named: boolean;
  marks: ReadonlyMap<string, Tone> | undefined;
  /** Names of those that are lit, with line breaks between them: a page on which none is stays as it is. */
  lit: string;
  onChoose: (field: string) => void;
  onPoint: (field: string | null) => void;
}

/** The boxes of the fields of one page; of a form of two thousand only those of a page that changes are drawn again. */
export const FieldBoxes = memo(function FieldBoxes({ widgets, size, number, scale, named, marks, lit, onChoose, onPoint }: Props) {
  const chosen = new Set(lit.split('\n'));
  return widgets.map(({ field, widget, at, isFirst }) => {
    const { left, top, right, bottom } = seenBox(widget.rect, size);
    const written = named ? (widget.onValue !== null ? `${nameEnd(field.name)} = ${widget.onValue}` : nameEnd(field.name)) : null;
    return (
      <Box
        key={`${field.name} ${at}`}
        $named={named}
        $tone={marks?.get(field.name) ?? null}
        data-small={(right - left) * scale < 34 || undefined}
        data-chosen={chosen.has(field.name) || undefined}
        data-field={isFirst ? field.name : undefined}
        tabIndex={-1}
        aria-label={[fieldLabel(field), ...(written === null ? [] : [written]), t`page ${number}`].join(', ')}
        title={named ? undefined : fieldLabel(field)}
        onClick={() => onChoose(field.name)}
        onMouseEnter={() => onPoint(field.name)}
        onMouseLeave={() => onPoint(null)}
        style={{ left: left * scale, top: top * scale, width: (right - left) * scale, height: (bottom - top) * scale }}
      >
        {written !== null && (
          <span>
            <bdi>{written}</bdi>
          </span>
        )}
      </Box>
    );
  });
});
