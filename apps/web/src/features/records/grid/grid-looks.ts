import styled from 'styled-components';
import { color } from '../../../theme';

/** Pixels. */
export const ROW = 31;
export const ROW_NUMBER = 64;

/** The grid with what stands above it. */
export const Whole = styled.div`
  flex: 1;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;
export const Frame = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
  user-select: none;
  /* On paper those rows that were in sight: a sheet of very many is saved and printed with a spreadsheet program. */
  @media print {
    overflow: visible;
    & > [role='rowgroup'] {
      height: auto !important;
    }
    & > [role='rowgroup'] > [role='row'] {
      position: static;
      transform: none !important;
    }
  }
`;
export const Line = styled.div`
  display: flex;
  position: absolute;
  left: 0;
  top: 0;
  min-width: 100%;
  width: 100%;
  contain: layout style;
  height: ${ROW}px;
  border-bottom: 1px solid ${color.hair};
  & > i {
    flex: none;
  }
  & > span {
    flex: none;
    padding: 6px 10px;
    line-height: 18px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: pre;
    background: ${color.sheet};
  }
  & > span[aria-selected='true'] {
    background: ${color.plumWash};
  }
  & > span[data-active] {
    box-shadow: inset 0 0 0 2px ${color.plum};
  }
  & > span[data-corrected] {
    position: relative;
    background: ${color.mossWash};
  }
  & > span[data-corrected]::after {
    content: '';
    position: absolute;
    right: 0;
    top: 0;
    border: 5px solid ${color.moss};
    border-left-color: transparent;
    border-bottom-color: transparent;
  }
  & > span[data-editing] {
    padding: 2px 3px;
  }
  & > span[data-frozen] {
    position: sticky;
    left: ${ROW_NUMBER}px;
    z-index: 1;
    border-right: 1px solid ${color.line};
  }
  & > span.row {
    position: sticky;
    left: 0;
    z-index: 1;
    width: ${ROW_NUMBER}px;
    background: ${color.paper};
    color: ${color.faded};
    font-size: 12px;
    text-align: right;
    border-right: 1px solid ${color.hair};
  }
`;
export const Heads = styled(Line)`
  position: sticky;
  left: auto;
  z-index: 2;
  width: max-content;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.line};
  & > span {
    position: relative;
    font-size: 12px;
    color: ${color.faded};
    padding-right: 24px;
  }
  & button {
    border: 0;
    padding: 0;
    background: none;
    font: inherit;
    color: inherit;
    text-align: left;
    cursor: pointer;
  }
  & b {
    color: ${color.ink};
    font-weight: 600;
  }
`;
/** Orders by its column. */
export const OrderButton = styled.button`
  &&& {
    position: absolute;
    right: 4px;
    top: 3px;
    width: 24px;
    height: 24px;
    display: grid;
    place-items: center;
    border-radius: 4px;
  }
  &:not([data-on]):not(:focus-visible) {
    opacity: 0;
  }
  span:hover > & {
    opacity: 1 !important;
  }
  &:hover {
    background: ${color.plumWash};
  }
`;
/** The edge by which a column is made wider. */
export const Edge = styled.i`
  position: absolute;
  right: 0;
  top: 0;
  bottom: 0;
  width: 5px;
  cursor: col-resize;
  &:hover {
    background: ${color.plum};
  }
`;
