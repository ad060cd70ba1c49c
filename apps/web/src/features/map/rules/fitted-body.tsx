import { t } from '@mailbag/core/words';
import { phrase } from '../../../ui/phrase';
import type { FittedRule } from '@mailbag/core';
import { LEAST_TYPE, MOST_TYPE } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { DraftText } from './draft-text';
import { Lead, Line } from './parts';
import { PartLine } from './rule-part';
import type { BodyProps } from './rule-setting';

const ways: { id: FittedRule['tooLong']; text: string; detail: string }[] = [
  {
    id: 'shrink',
    text: t`smaller type`,
    detail: t`Down to the size below; what is still too long is cut off at the edge, and a check says so`,
  },
  { id: 'wrap', text: t`smaller type, then further lines`, detail: t`Where the box is high enough for them` },
  { id: 'cut', text: t`smaller type, then an end`, detail: t`Behind the last character that fits` },
  { id: 'clip', text: t`the size of the form`, detail: t`What is too long is cut off at the edge` },
];

export function FittedBody({ rule, place, onChange }: BodyProps<FittedRule>) {
  return (
    <>
      <PartLine lead={t`Value`} place={place} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      <Line>
        <Lead>{t`Too long`}</Lead>
        <Choice
          label={t`${place}Where it is too long`}
          hideLabel
          small
          items={ways}
          value={rule.tooLong}
          onChange={(id) => onChange({ ...rule, tooLong: id as FittedRule['tooLong'] })}
        />
        {rule.tooLong !== 'clip' && (
          <>{phrase`down to${(
            <DraftText
              label={t`${place}Smallest type in points`}
              width={48}
              value={rule.smallest}
              write={String}
              read={(text) => {
                const size = Number(text.replace(',', '.'));
                return /^\d{1,2}([.,]\d{1,2})?$/.test(text.trim()) && size >= LEAST_TYPE && size <= MOST_TYPE ? size : null;
              }}
              onChange={(smallest) => onChange({ ...rule, smallest })}
            />
          )}points`}</>
        )}
      </Line>
    </>
  );
}
