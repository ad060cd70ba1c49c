import { t } from '@mailbag/core/words';
import type { CopyFact, CopyFactRule } from '@mailbag/core';
import { copyFacts } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import type { BodyProps } from './rule-setting';

const items = Object.entries(copyFacts).map(([id, text]) => ({ id, text }));

export function CopyFactBody({ rule, place, onChange }: BodyProps<CopyFactRule>) {
  return (
    <Choice
      label={t`${place}Fact about the copy`}
      hideLabel
      small
      items={items}
      value={rule.fact}
      onChange={(fact) => onChange({ ...rule, fact: fact as CopyFact })}
    />
  );
}
