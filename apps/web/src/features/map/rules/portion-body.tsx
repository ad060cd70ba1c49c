import type { PortionRule, Taken } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { WholeNumber } from './draft-text';
import { Lead, Line, ShortText } from './parts';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';

/** What can be taken, each with what it begins with. */
const ways: [id: string, text: string, take: Taken][] = [
  ['characters', 'characters from … to', { what: 'characters', from: 1, to: 4 }],
  ['character', 'one character', { what: 'characters', from: 1, to: 1 }],
  ['rest', 'everything from character', { what: 'characters', from: 2, to: null }],
  ['first', 'the first word', { what: 'word', number: 1 }],
  ['last', 'the last word', { what: 'word', number: -1 }],
  ['word', 'a word by its number', { what: 'word', number: 2 }],
  ['all-but-first', 'all but the first word', { what: 'all-but-word', number: 1 }],
  ['all-but-last', 'all but the last word', { what: 'all-but-word', number: -1 }],
  ['before', 'what stands before a mark', { what: 'before', mark: '-', which: 'first' }],
  ['after', 'what stands after a mark', { what: 'after', mark: '-', which: 'first' }],
  ['digits', 'digits only', { what: 'digits' }],
  ['letters', 'letters only', { what: 'letters' }],
];

function wayOf(take: Taken): string {
  if (take.what === 'characters') return take.to === null ? 'rest' : take.to === take.from ? 'character' : 'characters';
  if (take.what === 'word') return take.number === 1 ? 'first' : take.number === -1 ? 'last' : 'word';
  if (take.what === 'all-but-word') return take.number === 1 ? 'all-but-first' : 'all-but-last';
  return take.what;
}

export function PortionBody({ rule, place, onChange }: BodyProps<PortionRule>) {
  const { take } = rule;
  const way = wayOf(take);
  const put = (next: Taken): void => onChange({ ...rule, take: next });
  const number = (label: string, value: number, change: (value: number) => Taken, least = 1) => (
    <WholeNumber label={`${place}${label}`} value={value} least={least} most={100_000} onChange={(next) => put(change(next))} />
  );
  return (
    <>
      <Line>
        <Lead>Take</Lead>
        <Choice
          label={`${place}What is taken`}
          hideLabel
          small
          items={ways.map(([id, text]) => ({ id, text }))}
          value={way}
          onChange={(id) => put(ways.find((one) => one[0] === id)![2])}
        />
        {take.what === 'characters' && (
          <>
            {number('From character', take.from, (from) =>
              way === 'character' ? { ...take, from, to: from } : { ...take, from, to: take.to === null ? null : Math.max(from, take.to) },
            )}
            {way === 'characters' && (
              <>
                to
                {number('To character', take.to ?? take.from, (to) => ({ ...take, to }), take.from)}
              </>
            )}
          </>
        )}
        {take.what === 'word' && way === 'word' && number('Number of the word', take.number, (next) => ({ ...take, number: next }), 2)}
        {(take.what === 'before' || take.what === 'after') && (
          <>
            <Choice
              label={`${place}Which mark`}
              hideLabel
              small
              items={[
                { id: 'first', text: 'the first' },
                { id: 'last', text: 'the last' },
              ]}
              value={take.which}
              onChange={(which) => put({ ...take, which: which as 'first' | 'last' })}
            />
            <ShortText
              label={`${place}Mark`}
              width={64}
              value={take.mark}
              isInvalid={take.mark === ''}
              onChange={(mark) => mark !== '' && put({ ...take, mark })}
            />
          </>
        )}
      </Line>
      <Line>
        <Lead>of</Lead>
        <RulePart place={`${place}Portion of`} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      </Line>
      <Line>
        <Lead>Without it</Lead>
        <Choice
          label={`${place}When the value has no such part`}
          hideLabel
          small
          items={[
            { id: 'stop', text: 'is a stop', detail: 'The record waits until its value is corrected' },
            { id: 'blank', text: 'leave the field blank' },
            { id: 'whole', text: 'take all of the value' },
          ]}
          value={rule.missing}
          onChange={(missing) => onChange({ ...rule, missing: missing as PortionRule['missing'] })}
        />
      </Line>
    </>
  );
}
