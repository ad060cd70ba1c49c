import styled from 'styled-components';
import { color, font, narrow } from '../../theme';

/** Pixels between two columns. */
export const GAP = 16;

export const ListFrame = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
  ${narrow} {
    max-height: 100dvh;
  }
  @media print {
    overflow: visible;
    max-height: none;
  }
`;
const Line = styled.div`
  display: grid;
  gap: ${GAP}px;
  padding: 0 16px;
  align-items: center;
  border-bottom: 1px solid ${color.hair};
`;
export const HeadLine = styled(Line)`
  position: sticky;
  top: 0;
  z-index: 1;
  min-height: 29px;
  background: ${color.sheet};
  color: ${color.faded};
  font-size: 12px;
  line-height: 16px;
  border-bottom-color: ${color.line};
  & button {
    display: inline-flex;
    align-items: center;
    gap: 3px;
    min-height: 24px;
    border: 0;
    background: none;
    padding: 0;
    font: inherit;
    color: inherit;
    cursor: pointer;
    white-space: nowrap;
  }
  & button:hover {
    color: ${color.ink};
  }
  & > [data-number] {
    text-align: right;
    justify-self: end;
  }
`;
export const RowLine = styled(Line)`
  min-height: 34px;
  padding-block: 4px;
  line-height: 18px;
  &:not([data-static]) {
    contain: layout style;
    position: absolute;
    left: 0;
    right: 0;
    top: 0;
  }
  &[data-link] {
    cursor: pointer;
  }
  &:hover {
    background: ${color.paper};
  }
  &[aria-selected='true'],
  &[aria-current='true'] {
    background: ${color.plumWash};
  }
  &:focus-visible {
    outline-offset: -2px;
  }
  & > * {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  & > [data-number] {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  & a[data-name] {
    font-weight: 600;
    color: ${color.ink};
    text-decoration: none;
  }
  & a[data-name]:hover {
    text-decoration: underline;
  }
  & code {
    font-family: ${font.mono};
    font-size: 12px;
  }
  & [data-line] {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  /* Paper cannot be made wider: what would end in dots goes on in the next line. */
  @media print {
    & > *,
    & [data-line] {
      overflow: visible;
      white-space: normal;
      overflow-wrap: anywhere;
    }
  }
`;
/** Around a tick, so that it is large enough to be met (WCAG 2.2, 2.5.8). */
export const TickPlace = styled.label`
  width: 24px;
  height: 24px;
  display: grid;
  place-items: center;
  cursor: pointer;
  & > input {
    width: 15px;
    height: 15px;
    margin: 0;
    accent-color: ${color.plum};
    cursor: pointer;
  }
  @media print {
    visibility: hidden;
  }
`;
