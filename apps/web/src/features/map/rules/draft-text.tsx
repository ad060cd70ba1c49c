import { useState } from 'react';
import { ShortText } from './parts';

/**
 * Text that is not always right while it is typed, such as a number or a date: what is kept follows as soon as it is.
 * @param read null: it is not right yet
 */
export function DraftText<Value>({
  value,
  write,
  read,
  onChange,
  ...rest
}: {
  label: string;
  value: Value;
  write: (value: Value) => string;
  read: (text: string) => Value | null;
  onChange: (value: Value) => void;
  width?: number;
  placeholder?: string;
}) {
  const written = write(value);
  const [draft, setDraft] = useState<{ text: string; of: string } | null>(null);
  // What is typed gives way when the kept value is changed by something else, such as undo.
  const text = draft?.of === written ? draft.text : written;
  return (
    <ShortText
      {...rest}
      value={text}
      isInvalid={read(text) === null}
      onChange={(next) => {
        const own = read(next);
        setDraft({ text: next, of: own === null ? written : write(own) });
        if (own !== null && write(own) !== written) onChange(own);
      }}
    />
  );
}

/** A whole number within limits. */
export function WholeNumber({
  minimum,
  maximum: limit,
  width = 56,
  ...rest
}: {
  label: string;
  value: number;
  minimum: number;
  maximum: number;
  width?: number;
  onChange: (value: number) => void;
}) {
  return (
    <DraftText
      {...rest}
      width={width}
      write={String}
      read={(text) => {
        const number = Number(text);
        return /^-?\d{1,6}$/.test(text.trim()) && number >= minimum && number <= limit ? number : null;
      }}
    />
  );
}
