import { t } from '@mailbag/core/words';
import type { ShapeRule } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { Toggled } from '../../../ui/field';
import { WholeNumber } from './draft-text';
import { Lead, Line, ShortText } from './parts';
import { PartLine } from './rule-part';
import type { BodyProps } from './rule-setting';

const letters = [
  { id: 'as-they-are', text: t`as they are` },
  { id: 'capitals', text: t`CAPITALS` },
  { id: 'small', text: t`small letters` },
  { id: 'names', text: t`As a Name`, detail: t`Knows “van der” and “Mac”; what has both kinds of letters stays` },
];

export function ShapeBody({ rule, place, onChange }: BodyProps<ShapeRule>) {
  return (
    <>
      <PartLine lead={t`Text`} place={place} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      <Line>
        <Lead>{t`Letters`}</Lead>
        <Choice
          label={t`${place}Letters`}
          hideLabel
          small
          items={letters}
          value={rule.letters}
          onChange={(id) => onChange({ ...rule, letters: id as ShapeRule['letters'] })}
        />
        <Toggled label={t`Remove extra spaces`} value={rule.tidy} onChange={(tidy) => onChange({ ...rule, tidy })} />
      </Line>
      <Line>
        <Lead />
        <Toggled
          label={t`Join lines with`}
          value={rule.joinLines !== null}
          onChange={(on) => onChange({ ...rule, joinLines: on ? ', ' : null })}
        />
        {rule.joinLines !== null && (
          <ShortText
            label={t`${place}Between the lines`}
            width={56}
            value={rule.joinLines}
            onChange={(joinLines) => onChange({ ...rule, joinLines })}
          />
        )}
        <Toggled
          label={t`Zeros in front, up to`}
          value={rule.zeros !== null}
          onChange={(on) => onChange({ ...rule, zeros: on ? 5 : null })}
        />
        {rule.zeros !== null && (
          <>
            <WholeNumber
              label={t`${place}Characters in all`}
              value={rule.zeros}
              minimum={1}
              maximum={100}
              onChange={(zeros) => onChange({ ...rule, zeros })}
            />
            {t`characters`}
          </>
        )}
      </Line>
    </>
  );
}
