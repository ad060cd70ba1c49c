import { t } from '@mailbag/core/words';
import { useEffect, useState } from 'react';
import { TextInput } from '../../../ui/field';

export interface CommitInputProps {
  label: string;
  value: string;
  /** What was typed, once it is left or Enter is pressed, unless it is at fault. */
  onCommit: (value: string) => void;
  /** Why it cannot be so, as a sentence; null: it can. */
  faultOf?: (value: string) => string | null;
  help?: string;
  rows?: number;
  mono?: boolean;
}

/** A text that holds once it is left: half of it is no name. Escape takes back what was typed. */
export function CommitInput({ label, value, onCommit, faultOf, ...rest }: CommitInputProps) {
  const [typed, setTyped] = useState<string | null>(null);
  useEffect(() => setTyped(null), [value]);
  const fault = typed === null ? null : (faultOf?.(typed) ?? null);
  const commit = (): void => {
    if (typed === null || typed === value || fault !== null) return;
    onCommit(typed);
  };
  return (
    <TextInput
      label={label}
      value={typed ?? value}
      onChange={setTyped}
      error={fault}
      onBlur={() => {
        commit();
        // What cannot be is not kept: the field goes on as it was.
        setTyped(null);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && !rest.rows) commit();
        if (event.key === 'Escape') setTyped(null);
      }}
      {...rest}
    />
  );
}

/** A length or another number with decimals. */
export function AmountInput({
  label,
  value,
  onCommit,
  minimum = -20_000,
}: {
  label: string;
  value: number;
  onCommit: (value: number) => void;
  minimum?: number;
}) {
  const read = (text: string): number => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')));
  return (
    <CommitInput
      label={label}
      value={String(Math.round(value * 10) / 10)}
      faultOf={(text) => (Number.isNaN(read(text)) ? t`A number.` : read(text) < minimum ? t`At least ${minimum}.` : null)}
      onCommit={(text) => onCommit(read(text))}
    />
  );
}
