import { t } from '@mailbag/core/words';
import type { FillRule } from '@mailbag/core';
import { isCannot } from '@mailbag/core';
import styled from 'styled-components';
import { color, font } from '../../../theme';
import { useRuleSetting } from './rule-setting';

const Value = styled.span`
  font-family: ${font.mono};
  font-size: 13px;
  color: ${color.ink};
  max-width: 230px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;
const Fault = styled.span`
  font-size: 13px;
  color: ${color.brick};
`;

/** What a part comes to for the record that is looked at. */
export function LiveValue({ rule }: { rule: FillRule }) {
  const { work } = useRuleSetting();
  if (!work) return null;
  const made = work.make(rule);
  if (isCannot(made)) return <Fault>{made.cannot}</Fault>;
  return <Value title={made.text}>= {made.text === '' ? t`empty` : made.text}</Value>;
}
