import { t } from '@mailbag/core/words';
import type { TextRule } from '@mailbag/core';
import { acceptedValues } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { ShortText } from './parts';
import type { BodyProps } from './rule-setting';

export function TextBody({ rule, field, place, onChange }: BodyProps<TextRule>) {
  const accepted = acceptedValues(field);
  if (accepted.length > 0)
    return (
      <Choice
        label={t`${place}Value`}
        hideLabel
        small
        items={accepted.map((value) => ({ id: value, text: value }))}
        value={rule.text}
        onChange={(text) => onChange({ ...rule, text })}
      />
    );
  return (
    <ShortText
      label={t`${place}Fixed text`}
      width={240}
      value={rule.text}
      placeholder={t`The same in every copy`}
      onChange={(text) => onChange({ ...rule, text })}
    />
  );
}
