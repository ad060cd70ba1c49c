import styled from 'styled-components';
import { color, font } from '../../theme';

export const ChangesHeading = styled.h3`
  position: sticky;
  top: 0;
  z-index: 1;
  margin: 0;
  padding: 5px 12px;
  font: 600 14px/18px ${font.head};
  background: ${color.paper};
  border-bottom: 1px solid ${color.hair};
`;
/** A change, a field or a revision in the list beside the pages. */
export const ChangeLine = styled.div`
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 6px 12px;
  border-bottom: 1px solid ${color.hair};
  &[data-chosen] {
    background: ${color.plumWash};
  }
  & > button:first-child {
    flex: 1;
    min-width: 0;
    text-align: left;
    border: 0;
    padding: 0;
    background: none;
    cursor: pointer;
    font: inherit;
    color: inherit;
  }
`;
