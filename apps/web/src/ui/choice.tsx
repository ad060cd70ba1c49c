import { t } from '@mailbag/core/words';
import { Check, ChevronDown } from 'lucide-react';
import { memo } from 'react';
import type { RefObject } from 'react';
import { Button, ListBox, ListBoxItem, Popover, Select, SelectValue } from 'react-aria-components';
import styled from 'styled-components';
import { color, radius, shadow } from '../theme';
import { FieldLabel } from './field';
import { useLatest } from './use-latest';

const Frame = styled(Select)`
  display: flex;
  flex-direction: column;
  gap: 4px;
  min-width: 0;
`;
const Trigger = styled(Button)<{ $small?: boolean }>`
  height: ${({ $small }) => ($small ? '28px' : '32px')};
  padding: 0 8px 0 10px;
  border: 1px solid ${color.line};
  border-radius: ${radius};
  background: ${color.sheet};
  display: inline-flex;
  align-items: center;
  gap: 8px;
  cursor: pointer;
  min-width: 0;
  max-width: 100%;
  & > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    flex: 1;
    text-align: left;
  }
  & > svg {
    color: ${color.faded};
  }
  &[data-placeholder] > span {
    color: ${color.faded};
  }
`;
export const Floating = styled(Popover)`
  background: ${color.sheet};
  border: 1px solid ${color.line};
  border-radius: ${radius};
  box-shadow: ${shadow};
  min-width: var(--trigger-width);
  max-height: 320px;
  overflow: auto;
`;
const List = styled(ListBox<ChoiceItem>)`
  padding: 4px;
  outline: none;
`;
const Item = styled(ListBoxItem)`
  padding: 5px 8px;
  border-radius: 4px;
  display: flex;
  gap: 8px;
  align-items: center;
  cursor: pointer;
  max-width: max(420px, var(--trigger-width));
  & > span {
    flex: 1;
    min-width: 0;
  }
  & small {
    display: block;
    color: ${color.faded};
    font-size: 12px;
    line-height: 16px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &[data-focused] {
    background: ${color.plumWash};
    outline: none;
  }
  &[data-selected] {
    font-weight: 600;
  }
`;

export interface ChoiceItem {
  id: string;
  text: string;
  detail?: string;
}

export interface ChoiceProps {
  label: string;
  hideLabel?: boolean;
  items: readonly ChoiceItem[];
  value: string | null;
  onChange: (id: string) => void;
  placeholder?: string;
  small?: boolean;
}

type Body = Omit<ChoiceProps, 'onChange'> & { acts: RefObject<ChoiceProps['onChange']> };

const sameItem = (one: ChoiceItem, other: ChoiceItem | undefined): boolean =>
  one.id === other?.id && one.text === other.text && one.detail === other.detail;
const sameBody = ({ items, ...before }: Body, { items: others, ...after }: Body): boolean =>
  items.length === others.length &&
  items.every((item, at) => sameItem(item, others[at])) &&
  Object.keys({ ...before, ...after }).every((name) => before[name as keyof typeof before] === after[name as keyof typeof after]);

/** Drawn anew only when it shows something else: what draws a list of choices does so twice, and a screen has many. */
const ChoiceBody = memo(function ChoiceBody({ label, hideLabel, items, value, placeholder, small, acts }: Body) {
  return (
    <Frame value={value} onChange={(key) => key !== null && acts.current(String(key))} placeholder={placeholder} aria-label={label}>
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      <Trigger $small={small}>
        <SelectValue>{({ selectedText }) => selectedText || placeholder}</SelectValue>
        <ChevronDown size={14} />
      </Trigger>
      <Floating offset={4}>
        <List items={items}>
          {(item) => (
            <Item id={item.id} textValue={item.text}>
              {({ isSelected }) => (
                <>
                  <span>
                    {item.text}
                    {item.detail && <small>{item.detail}</small>}
                  </span>
                  {isSelected && <Check size={14} />}
                </>
              )}
            </Item>
          )}
        </List>
      </Floating>
    </Frame>
  );
}, sameBody);

/** One of several. Typing goes to the first that begins so. */
export function Choice({ onChange, placeholder = t`Choose`, ...rest }: ChoiceProps) {
  return <ChoiceBody {...rest} placeholder={placeholder} acts={useLatest(onChange)} />;
}
