import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { Tone } from '../theme';
import { color, tones } from '../theme';

/** A word with a mark; the colour only repeats it. */
export const Mark = styled.span<{ $tone: Tone }>`
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font-size: 12px;
  line-height: 18px;
  border-radius: 4px;
  padding: 1px 6px;
  white-space: nowrap;
  color: ${({ $tone }) => tones[$tone].ink};
  background: ${({ $tone }) => tones[$tone].wash};
  ${({ $tone }) => $tone === 'plain' && `box-shadow: inset 0 0 0 1px ${color.line};`}
  & svg {
    width: 13px;
    height: 13px;
  }
`;

export const Chip = styled.span<{ $column?: boolean }>`
  display: inline-block;
  border-radius: 4px;
  background: ${({ $column }) => ($column ? color.kraft : color.slateWash)};
  padding: 0 6px;
  font-size: 13px;
  line-height: 20px;
  margin: 0 3px 2px 0;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  vertical-align: top;
`;

const Box = styled.div<{ $tone: Tone }>`
  display: flex;
  gap: 10px;
  padding: 10px 12px;
  border-radius: 6px;
  background: ${({ $tone }) => tones[$tone].wash};
  color: ${color.ink};
  & > svg {
    color: ${({ $tone }) => tones[$tone].ink};
    margin-top: 1px;
  }
  & > div {
    min-width: 0;
  }
`;
export function Notice({ tone, icon, children }: { tone: Tone; icon?: ReactNode; children: ReactNode }) {
  return (
    <Box $tone={tone} role={tone === 'brick' ? 'alert' : 'status'}>
      {icon}
      <div>{children}</div>
    </Box>
  );
}

export const Say = styled.span`
  color: ${color.faded};
  font-size: 13px;
`;
