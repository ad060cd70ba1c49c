import { t } from '@mailbag/core/words';
import type { ColumnRule } from '@mailbag/core';
import { ColumnChoice } from './column-choice';
import type { BodyProps } from './rule-setting';

export function ColumnBody({ rule, place, onChange }: BodyProps<ColumnRule>) {
  return (
    <ColumnChoice
      label={place ? t`${place}column` : t`Column`}
      value={rule.column}
      onChange={({ name }) => onChange({ ...rule, column: name })}
    />
  );
}
