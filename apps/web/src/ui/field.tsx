import type { ReactNode, Ref } from 'react';
import { FieldError, Input, Label, Switch, Text, TextArea, TextField } from 'react-aria-components';
import styled, { css } from 'styled-components';
import { color, font, radius } from '../theme';

export const inputStyle = css`
  width: 100%;
  min-height: 32px;
  padding: 5px 10px;
  border: 1px solid ${color.line};
  border-radius: ${radius};
  background: ${color.sheet};
  &::placeholder {
    color: ${color.faded};
  }
  &:focus {
    outline: 2px solid ${color.plum};
    outline-offset: -1px;
  }
  &[data-invalid] {
    border-color: ${color.brick};
  }
`;
const Frame = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 4px;
  min-width: 0;
`;
export const FieldLabel = styled(Label)`
  font-size: 12px;
  line-height: 16px;
  color: ${color.faded};
`;
const Line = styled(Input)<{ $mono?: boolean }>`
  ${inputStyle}
  ${({ $mono }) => $mono && `font-family: ${font.mono}; font-size: 13px;`}
`;
const Area = styled(TextArea)<{ $mono?: boolean }>`
  ${inputStyle}
  resize: vertical;
  line-height: 20px;
  ${({ $mono }) => $mono && `font-family: ${font.mono}; font-size: 13px;`}
`;
export const Help = styled(Text)`
  font-size: 12px;
  line-height: 16px;
  color: ${color.faded};
`;
export const Wrong = styled.div`
  font-size: 12px;
  line-height: 16px;
  color: ${color.brick};
`;
const ErrorLine = styled(FieldError)`
  font-size: 12px;
  line-height: 16px;
  color: ${color.brick};
`;

export interface TextInputProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  help?: ReactNode;
  error?: string | null;
  type?: string;
  placeholder?: string;
  rows?: number;
  mono?: boolean;
  hideLabel?: boolean;
  autoFocus?: boolean;
  autoComplete?: string;
  onBlur?: () => void;
  onFocus?: () => void;
  onKeyDown?: (event: React.KeyboardEvent) => void;
  inputRef?: Ref<HTMLInputElement & HTMLTextAreaElement>;
  isReadOnly?: boolean;
}

export function TextInput({
  label,
  help,
  error,
  type = 'text',
  rows,
  mono,
  hideLabel,
  placeholder,
  inputRef,
  value,
  autoComplete = 'off',
  ...rest
}: TextInputProps) {
  return (
    <Frame
      value={value}
      type={type}
      isInvalid={Boolean(error)}
      autoComplete={autoComplete}
      {...(hideLabel ? { 'aria-label': label } : {})}
      {...rest}
    >
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      {rows ? (
        <Area rows={rows} $mono={mono} placeholder={placeholder} ref={inputRef} />
      ) : (
        <Line $mono={mono} placeholder={placeholder} ref={inputRef} />
      )}
      {help && !error && <Help slot="description">{help}</Help>}
      <ErrorLine>{error}</ErrorLine>
    </Frame>
  );
}

const Toggle = styled(Switch)`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  cursor: pointer;
  & > i {
    width: 34px;
    height: 20px;
    border-radius: 10px;
    background: ${color.slate};
    position: relative;
    flex: none;
  }
  & > i::after {
    content: '';
    position: absolute;
    left: 3px;
    top: 3px;
    width: 14px;
    height: 14px;
    border-radius: 50%;
    background: ${color.sheet};
  }
  &[data-selected] > i {
    background: ${color.plum};
  }
  &[data-selected] > i::after {
    left: 17px;
  }
  &[data-focus-visible] > i {
    outline: 2px solid ${color.plum};
    outline-offset: 2px;
  }
`;

export function Toggled({ label, value, onChange }: { label: string; value: boolean; onChange: (value: boolean) => void }) {
  return (
    <Toggle isSelected={value} onChange={onChange}>
      <i />
      {label}
    </Toggle>
  );
}
