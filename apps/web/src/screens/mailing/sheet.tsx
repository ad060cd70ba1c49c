import styled from 'styled-components';
import { color } from '../../theme';

/** A sheet of paper on the right side: the message, a path, an address. */
export const Sheet = styled.article`
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: 6px;
  & > header {
    padding: 10px 14px;
    border-bottom: 1px solid ${color.hair};
    display: grid;
    grid-template-columns: 64px minmax(0, 1fr);
    gap: 2px 8px;
    overflow-wrap: anywhere;
  }
  & > header > span {
    color: ${color.faded};
    font-size: 12px;
  }
  & > div {
    padding: 14px;
    overflow-wrap: anywhere;
  }
  & > footer {
    padding: 8px 14px;
    border-top: 1px solid ${color.hair};
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
  }
`;
