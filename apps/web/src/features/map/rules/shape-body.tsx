import type { ShapeRule } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { Toggled } from '../../../ui/field';
import { WholeNumber } from './draft-text';
import { Lead, Line, ShortText } from './parts';
import { PartLine } from './rule-part';
import type { BodyProps } from './rule-setting';

const letters = [
  { id: 'as-they-are', text: 'as they are' },
  { id: 'capitals', text: 'CAPITALS' },
  { id: 'small', text: 'small letters' },
  { id: 'names', text: 'As a Name', detail: 'Knows “van der” and “Mac”; what has both kinds of letters stays' },
];

export function ShapeBody({ rule, place, onChange }: BodyProps<ShapeRule>) {
  return (
    <>
      <PartLine lead="Text" place={place} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      <Line>
        <Lead>Letters</Lead>
        <Choice
          label={`${place}Letters`}
          hideLabel
          small
          items={letters}
          value={rule.letters}
          onChange={(id) => onChange({ ...rule, letters: id as ShapeRule['letters'] })}
        />
        <Toggled label="Remove extra spaces" value={rule.tidy} onChange={(tidy) => onChange({ ...rule, tidy })} />
      </Line>
      <Line>
        <Lead />
        <Toggled
          label="Join lines with"
          value={rule.joinLines !== null}
          onChange={(on) => onChange({ ...rule, joinLines: on ? ', ' : null })}
        />
        {rule.joinLines !== null && (
          <ShortText
            label={`${place}Between the lines`}
            width={56}
            value={rule.joinLines}
            onChange={(joinLines) => onChange({ ...rule, joinLines })}
          />
        )}
        <Toggled label="Zeros in front, up to" value={rule.zeros !== null} onChange={(on) => onChange({ ...rule, zeros: on ? 5 : null })} />
        {rule.zeros !== null && (
          <>
            <WholeNumber
              label={`${place}Characters in all`}
              value={rule.zeros}
              least={1}
              most={100}
              onChange={(zeros) => onChange({ ...rule, zeros })}
            />
            characters
          </>
        )}
      </Line>
    </>
  );
}
