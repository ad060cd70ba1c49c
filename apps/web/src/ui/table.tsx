import { ArrowDown, ArrowUp } from 'lucide-react';
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
  & th button {
    display: inline-flex;
    align-items: center;
    gap: 3px;
    border: 0;
    background: none;
    padding: 0;
    font: inherit;
    color: inherit;
    cursor: pointer;
  }
  & th button:hover {
    color: ${color.ink};
  }
  & .mono {
    font-family: ${font.mono};
    font-size: 12px;
  }
`;

/** A heading that orders the rows by its column; once more, the other way round. */
export function Sortable({
  words,
  onSort,
  ...rest
}: {
  words: string;
  onSort: () => void;
  'aria-sort': 'none' | 'ascending' | 'descending';
}) {
  const way = rest['aria-sort'];
  return (
    <th {...rest}>
      <button type="button" onClick={onSort}>
        {words}
        {way === 'ascending' && <ArrowUp size={12} aria-hidden />}
        {way === 'descending' && <ArrowDown size={12} aria-hidden />}
      </button>
    </th>
  );
}
