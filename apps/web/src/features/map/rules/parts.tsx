import styled from 'styled-components';
import { color } from '../../../theme';
import { Row } from '../../../ui/layout';

/** Things beside each other, as many as fit a line. */
export const Line = styled(Row)`
  flex-wrap: wrap;
  gap: 6px;
`;

/** What belongs to the line above it. */
export const Inset = styled.div`
  border-left: 2px solid ${color.line};
  padding-left: 10px;
  display: flex;
  flex-direction: column;
  gap: 8px;
`;

/** A word in front of a part. */
export const Lead = styled.span`
  color: ${color.faded};
  font-size: 13px;
  min-width: 62px;
`;

/** A part in a frame, with what takes it away. */
export const Framed = styled.div`
  display: inline-flex;
  align-items: center;
  border: 1px solid ${color.line};
  border-radius: 6px;
  background: ${color.sheet};
  padding-left: 4px;
  min-width: 0;
  & > input {
    border: 0;
    background: none;
    width: 92px;
    padding: 3px 6px;
    outline: none;
  }
  & > button {
    padding: 0 4px;
    height: 26px;
  }
`;

/** A list of pairs: what is there, and what it becomes. */
export const Pair = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20px minmax(0, 1fr) 30px;
  gap: 6px;
  align-items: center;
`;

const Box = styled.input`
  height: 28px;
  border: 1px solid ${color.line};
  border-radius: 6px;
  background: ${color.sheet};
  padding: 0 8px;
  min-width: 0;
  &::placeholder {
    color: ${color.faded};
  }
  &:focus {
    outline: 2px solid ${color.plum};
    outline-offset: -1px;
  }
  &[aria-invalid='true'] {
    border-color: ${color.brick};
  }
`;

/** A short text within a line. */
export function ShortText({
  label,
  value,
  width = 110,
  placeholder,
  isInvalid = false,
  onChange,
}: {
  label: string;
  value: string;
  width?: number;
  placeholder?: string;
  isInvalid?: boolean;
  onChange: (value: string) => void;
}) {
  return (
    <Box
      aria-label={label}
      aria-invalid={isInvalid}
      style={{ width }}
      value={value}
      placeholder={placeholder}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
