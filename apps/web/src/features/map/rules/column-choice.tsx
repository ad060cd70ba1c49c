import { t } from '@mailbag/core/words';
import type { Column } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { useRuleSetting } from './rule-setting';

const items = (columns: readonly Column[]) =>
  columns.map((column) => ({ id: column.name, text: column.name, detail: column.examples.slice(0, 3).join(' · ') || t`empty` }));

/** A column of the source, with samples of what is in it. */
export function ColumnChoice({
  label = t`Column`,
  value,
  placeholder = t`Choose a column`,
  onChange,
}: {
  label?: string;
  value: string | null;
  placeholder?: string;
  onChange: (column: Column) => void;
}) {
  const { columns } = useRuleSetting();
  return (
    <Choice
      label={label}
      hideLabel
      small
      items={items(columns)}
      value={columns.some(({ name }) => name === value) ? value : null}
      // A column that the source has no more is still named.
      placeholder={value || placeholder}
      onChange={(name) => onChange(columns.find((one) => one.name === name)!)}
    />
  );
}
