import { TextInput } from './field';

/** A whole number that is not negative. */
export function NumberInput({
  label,
  value,
  onChange,
  help,
  least = 0,
  most = 1_000_000,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
  help?: string;
  least?: number;
  most?: number;
}) {
  return (
    <TextInput
      label={label}
      value={String(value)}
      onChange={(text) => onChange(Math.min(most, Math.max(least, Number(text.replace(/\D/g, '') || 0))))}
      {...(help ? { help } : {})}
    />
  );
}

/** A password that is kept encrypted and never comes back; left empty, the kept one stays. */
export function SecretInput({
  label = 'Password',
  value,
  onChange,
  isKept,
  rows,
  sample,
}: {
  label?: string;
  value: string;
  onChange: (value: string) => void;
  isKept: boolean;
  rows?: number;
  sample?: string;
}) {
  return (
    <TextInput
      label={label}
      {...(rows ? { rows, mono: true } : { type: 'password' })}
      autoComplete="new-password"
      value={value}
      onChange={onChange}
      placeholder={isKept ? 'stays as it is' : (sample ?? '')}
      help="Kept encrypted and never shown again."
    />
  );
}
