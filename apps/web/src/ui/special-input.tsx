import { t } from '@mailbag/core/words';
import { useState } from 'react';
import { TextInput } from './field';

/** A whole number that is not negative. */
export function NumberInput({
  label,
  value,
  onChange,
  help,
  minimum = 0,
  maximum: limit = 1_000_000,
  hideLabel = false,
  error,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
  help?: string;
  minimum?: number;
  maximum?: number;
  hideLabel?: boolean;
  error?: string | null;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const isIn = (number: number): boolean => number >= minimum && number <= limit;
  // What is typed stands while it is typed, though its first digit alone may be too small; whoever leaves finds what holds.
  const leave = (): void => {
    if (typed && !isIn(Number(typed))) onChange(Math.min(limit, Math.max(minimum, Number(typed))));
    setTyped(null);
  };
  return (
    <TextInput
      label={label}
      hideLabel={hideLabel}
      value={typed ?? String(value)}
      onBlur={leave}
      onChange={(text) => {
        const digits = text.replace(/\D/g, '');
        setTyped(digits);
        if (digits !== '' && isIn(Number(digits))) onChange(Number(digits));
      }}
      error={typed && !isIn(Number(typed)) ? t`From ${minimum} to ${limit}.` : error}
      {...(help ? { help } : {})}
    />
  );
}

/** A password that is kept encrypted and never comes back; left empty, the kept one stays. @param moved whether what it opens was changed, so that it must be given again */
export function SecretInput({
  label = t`Password`,
  value,
  onChange,
  isStored,
  moved = false,
  rows,
  sample,
  error,
}: {
  label?: string;
  value: string;
  onChange: (value: string) => void;
  isStored: boolean;
  moved?: boolean;
  rows?: number;
  sample?: string;
  error?: string | null;
}) {
  return (
    <TextInput
      label={label}
      {...(rows ? { rows, mono: true } : { type: 'password' })}
      autoComplete="new-password"
      value={value}
      onChange={onChange}
      error={error}
      placeholder={isStored ? (moved ? t`enter it again` : t`unchanged`) : (sample ?? '')}
      help={
        isStored && moved
          ? t`Enter it again: the server it is sent to was changed. A stored password is only sent to the server it was entered for.`
          : t`Stored encrypted and never shown again.`
      }
    />
  );
}
