import styled from 'styled-components';

/** The heading of a card with something beside it. */
export const HeadRow = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 12px 8px;
  & > h2 {
    flex: 1;
  }
`;
