import type { ReactNode } from 'react';
import styled from 'styled-components';
import { color, narrow } from '../theme';
import { Card } from './layout';

/** Cards beside each other: what is worked on, and what is to be known about it. */
export const Columns = styled.div<{ $columns?: string }>`
  display: grid;
  grid-template-columns: ${({ $columns = 'minmax(0, 640px) minmax(0, 320px)' }) => $columns};
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
  gap: 16px;
  align-items: start;
`;
export const Padded = styled(Card)`
  padding: 16px;
  gap: 14px;
  & > h2 {
    padding: 0;
  }
`;
/** Fields beside each other, each as wide as it wants. */
export const Fields = styled.div<{ $columns?: string }>`
  display: grid;
  grid-template-columns: ${({ $columns = '1fr 1fr' }) => $columns};
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
  gap: 12px;
  align-items: start;
`;
const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 10px 0;
  border-top: 1px solid ${color.hair};
  &:first-of-type {
    border-top: 0;
  }
  & > div:first-child {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  & b {
    font-weight: 600;
  }
`;
/** One thing of a list: what it is on the left, what can be done with it on the right. */
export function ListLine({ children, actions }: { children: ReactNode; actions?: ReactNode }) {
  return (
    <Line>
      <div>{children}</div>
      {actions}
    </Line>
  );
}
