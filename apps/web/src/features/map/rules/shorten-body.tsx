import type { ShortenRule } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { WholeNumber } from './draft-text';
import { Lead, Line, ShortText } from './parts';
import { PartLine } from './rule-part';
import type { BodyProps } from './rule-setting';

export function ShortenBody({ rule, place, onChange }: BodyProps<ShortenRule>) {
  return (
    <>
      <PartLine lead="Value" place={place} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      <Line>
        <Lead>At most</Lead>
        <WholeNumber
          label={`${place}Most characters`}
          value={rule.to}
          least={1}
          most={100_000}
          onChange={(to) => onChange({ ...rule, to })}
        />
        characters, to the last
        <Choice
          label={`${place}Where it ends`}
          hideLabel
          small
          items={[
            { id: 'word', text: 'whole word' },
            { id: 'character', text: 'character' },
          ]}
          value={rule.at}
          onChange={(id) => onChange({ ...rule, at: id as ShortenRule['at'] })}
        />
        then
        <ShortText
          label={`${place}Mark behind it`}
          width={56}
          placeholder="nothing"
          value={rule.mark}
          onChange={(mark) => onChange({ ...rule, mark })}
        />
      </Line>
    </>
  );
}
