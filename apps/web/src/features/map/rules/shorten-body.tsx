import { t } from '@mailbag/core/words';
import { phrase } from '../../../ui/phrase';
import type { ShortenRule } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { WholeNumber } from './draft-text';
import { Lead, Line, ShortText } from './parts';
import { PartLine } from './rule-part';
import type { BodyProps } from './rule-setting';

export function ShortenBody({ rule, place, onChange }: BodyProps<ShortenRule>) {
  return (
    <>
      <PartLine lead={t`Value`} place={place} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      <Line>
        <Lead>{t`At most`}</Lead>
        <WholeNumber
          label={t`${place}Maximum characters`}
          value={rule.to}
          minimum={1}
          maximum={100_000}
          onChange={(to) => onChange({ ...rule, to })}
        />
        {phrase`characters, to the last${(
          <Choice
            label={t`${place}Where it ends`}
            hideLabel
            small
            items={[
              { id: 'word', text: t`whole word` },
              { id: 'character', text: t`character` },
            ]}
            value={rule.at}
            onChange={(id) => onChange({ ...rule, at: id as ShortenRule['at'] })}
          />
        )}then`}
        <ShortText
          label={t`${place}Mark behind it`}
          width={56}
          placeholder={t`nothing`}
          value={rule.mark}
          onChange={(mark) => onChange({ ...rule, mark })}
        />
      </Line>
    </>
  );
}
