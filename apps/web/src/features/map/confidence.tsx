import { SURE } from '@mailbag/core';
import styled from 'styled-components';
import { color } from '../../theme';
import { Small } from '../../ui/layout';

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  margin: 2px 0;
  & > i {
    width: 44px;
    height: 6px;
    border-radius: 3px;
    background: ${color.line};
    overflow: hidden;
    flex: none;
  }
  & > i > b {
    display: block;
    height: 100%;
  }
`;

/** How sure a suggestion is, and why it is made. @param confidence from 0 to 1 */
export function Confidence({ confidence, why }: { confidence: number; why: string }) {
  const isSure = confidence >= SURE;
  return (
    <Line>
      <i aria-hidden>
        <b style={{ width: `${Math.round(confidence * 100)}%`, background: isSure ? color.moss : color.ochre }} />
      </i>
      <Small>
        {isSure ? 'Sure' : 'Perhaps'}: {why}
      </Small>
    </Line>
  );
}
