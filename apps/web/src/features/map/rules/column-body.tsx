import type { ColumnRule } from '@mailbag/core';
import { ColumnChoice } from './column-choice';
import type { BodyProps } from './rule-setting';

export function ColumnBody({ rule, place, onChange }: BodyProps<ColumnRule>) {
  return (
    <ColumnChoice
      label={place ? `${place}column` : 'Column'}
      value={rule.column}
      onChange={({ name }) => onChange({ ...rule, column: name })}
    />
  );
}
