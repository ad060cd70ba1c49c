import styled from 'styled-components';
import { color, font } from '../theme';

export const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  & th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: ${color.sheet};
    font-size: 12px;
    line-height: 16px;
    text-align: left;
    color: ${color.faded};
    font-weight: 400;
    padding: 7px 10px;
    box-shadow: inset 0 -1px 0 ${color.line};
    white-space: nowrap;
  }
  & td {
    padding: 6px 10px;
    border-bottom: 1px solid ${color.hair};
    vertical-align: top;
    line-height: 18px;
  }
  & tr[data-link] {
    cursor: pointer;
  }
  & tr[data-link]:hover td {
    background: ${color.paper};
  }
  & tr[data-chosen] td {
    background: ${color.plumWash};
  }
  & td.number,
  & th.number {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  & .mono {
    font-family: ${font.mono};
    font-size: 12px;
  }
`;
