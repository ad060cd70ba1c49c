import type { ReactNode } from 'react';
import { Label, Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import { color, radius } from '../theme';

const Frame = styled(RadioGroup)`
  display: flex;
  flex-direction: column;
  gap: 6px;
  & > label {
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
  }
`;
const Line = styled(Radio)`
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr) auto;
  gap: 2px 10px;
  align-items: baseline;
  padding: 8px 12px;
  border: 1px solid ${color.line};
  border-radius: ${radius};
  cursor: pointer;
  & > i {
    width: 14px;
    height: 14px;
    border: 1px solid ${color.faded};
    border-radius: 50%;
    align-self: center;
  }
  & > small {
    grid-column: 2 / -1;
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
  }
  & > b {
    font-weight: 400;
    color: ${color.faded};
    white-space: nowrap;
  }
  &[data-selected] {
    border-color: ${color.plum};
    background: ${color.plumWash};
    font-weight: 600;
  }
  &[data-selected] > i {
    border: 5px solid ${color.plum};
  }
  &[data-selected] > small {
    font-weight: 400;
  }
  &[data-focus-visible] {
    outline: 2px solid ${color.plum};
    outline-offset: 1px;
  }
  &[data-disabled] {
    cursor: default;
    color: ${color.faded};
  }
`;

export interface Pick<Id extends string> {
  id: Id;
  text: string;
  /** How many it means. */
  figure?: ReactNode;
  detail?: string;
  isDisabled?: boolean;
}

/** One of a few ways, each in a line that says what it means. */
export function PickOne<Id extends string>({
  label,
  items,
  value,
  onChange,
}: {
  label: string;
  items: readonly Pick<Id>[];
  value: Id;
  onChange: (id: Id) => void;
}) {
  return (
    <Frame value={value} onChange={(id) => onChange(id as Id)}>
      <Label>{label}</Label>
      {items.map(({ id, text, figure, detail, isDisabled = false }) => (
        <Line key={id} value={id} isDisabled={isDisabled}>
          <i aria-hidden />
          <span>{text}</span>
          <b>{figure}</b>
          {detail && <small>{detail}</small>}
        </Line>
      ))}
    </Frame>
  );
}
