import { t } from '@mailbag/core/words';
import type { CSSProperties } from 'react';
import styled from 'styled-components';
import { color, font, shadow } from '../theme';

const Box = styled.ul`
  z-index: 30;
  margin: 2px 0 0;
  padding: 4px;
  list-style: none;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 6px;
  box-shadow: ${shadow};
  max-height: 220px;
  overflow: auto;
  min-width: 240px;
  & > li {
    padding: 4px 8px;
    border-radius: 4px;
    cursor: pointer;
  }
  & > li[aria-selected='true'] {
    background: ${color.plumWash};
  }
  & code {
    font-family: ${font.mono};
    font-size: 12px;
    color: ${color.faded};
    margin-left: 6px;
  }
`;

/** What can be put in. */
export interface Offer {
  slug: string;
  text: string;
}

/** A list that opens below what is typed; the keyboard stays in the text. */
export function Offers({
  items,
  chosen,
  onChoose,
  style,
}: {
  items: readonly Offer[];
  chosen: number;
  onChoose: (item: Offer) => void;
  style: CSSProperties;
}) {
  return (
    <Box role="listbox" aria-label={t`Columns`} style={style}>
      {items.map((item, index) => (
        <li
          key={item.slug}
          role="option"
          aria-selected={index === chosen}
          onMouseDown={(event) => {
            event.preventDefault();
            onChoose(item);
          }}
        >
          {item.text}
          <code>{item.slug}</code>
        </li>
      ))}
    </Box>
  );
}
