import { t } from '@mailbag/core/words';
import { SURE } from '@mailbag/core';
import styled from 'styled-components';
import { color } from '../../theme';
import { Small } from '../../ui/layout';

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  margin: 2px 0;
`;
const Track = styled.i`
  display: inline-block;
  width: 44px;
  height: 6px;
  border-radius: 3px;
  background: ${color.line};
  overflow: hidden;
  flex: none;
  & > b {
    display: block;
    height: 100%;
  }
`;

/** How sure something is, as a bar. @param confidence from 0 to 1 @param label what it says to whoever does not see it; left out: it stands beside */
export function SureBar({ confidence, label }: { confidence: number; label?: string }) {
  return (
    <Track {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label, title: label })}>
      <b style={{ width: `${Math.round(confidence * 100)}%`, background: confidence >= SURE ? color.moss : color.ochre }} />
    </Track>
  );
}

/** How sure a suggestion is, and why it is made. @param confidence from 0 to 1 */
export function Confidence({ confidence, why }: { confidence: number; why: string }) {
  const isSure = confidence >= SURE;
  return (
    <Line>
      <SureBar confidence={confidence} />
      <Small>
        {isSure ? t`Sure` : t`Perhaps`}: {why}
      </Small>
    </Line>
  );
}
