import { t } from '@mailbag/core/words';
import type { PortionRule, Taken } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { WholeNumber } from './draft-text';
import { Lead, Line, ShortText } from './parts';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';

/** What can be taken, each with what it begins with. */
const ways: [id: string, text: string, take: Taken][] = [
  ['characters', t`characters from … to`, { what: 'characters', from: 1, to: 4 }],
  ['character', t`one character`, { what: 'characters', from: 1, to: 1 }],
  ['rest', t`everything from character`, { what: 'characters', from: 2, to: null }],
  ['first', t`the first word`, { what: 'word', number: 1 }],
  ['last', t`the last word`, { what: 'word', number: -1 }],
  ['word', t`a word by its number`, { what: 'word', number: 2 }],
  ['all-but-first', t`all but the first word`, { what: 'all-but-word', number: 1 }],
  ['all-but-last', t`all but the last word`, { what: 'all-but-word', number: -1 }],
  ['before', t`what stands before a mark`, { what: 'before', mark: '-', which: 'first' }],
  ['after', t`what stands after a mark`, { what: 'after', mark: '-', which: 'first' }],
  ['digits', t`digits only`, { what: 'digits' }],
  ['letters', t`letters only`, { what: 'letters' }],
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
  const number = (label: string, value: number, change: (value: number) => Taken, minimum = 1) => (
    <WholeNumber label={`${place}${label}`} value={value} minimum={minimum} maximum={100_000} onChange={(next) => put(change(next))} />
  );
  return (
    <>
      <Line>
        <Lead>{t`Take`}</Lead>
        <Choice
          label={t`${place}What is taken`}
          hideLabel
          small
          items={ways.map(([id, text]) => ({ id, text }))}
          value={way}
          onChange={(id) => put(ways.find((one) => one[0] === id)![2])}
        />
        {take.what === 'characters' && (
          <>
            {number(t`From character`, take.from, (from) =>
              way === 'character' ? { ...take, from, to: from } : { ...take, from, to: take.to === null ? null : Math.max(from, take.to) },
            )}
            {way === 'characters' && (
              <>
                {t`to`}
                {number(t`To character`, take.to ?? take.from, (to) => ({ ...take, to }), take.from)}
              </>
            )}
          </>
        )}
        {take.what === 'word' && way === 'word' && number(t`Number of the word`, take.number, (next) => ({ ...take, number: next }), 2)}
        {(take.what === 'before' || take.what === 'after') && (
          <>
            <Choice
              label={t`${place}Which mark`}
              hideLabel
              small
              items={[
                { id: 'first', text: t`the first` },
                { id: 'last', text: t`the last` },
              ]}
              value={take.which}
              onChange={(which) => put({ ...take, which: which as 'first' | 'last' })}
            />
            <ShortText
              label={t`${place}Mark`}
              width={64}
              value={take.mark}
              isInvalid={take.mark === ''}
              onChange={(mark) => mark !== '' && put({ ...take, mark })}
            />
          </>
        )}
      </Line>
      <Line>
        <Lead>{t`of`}</Lead>
        <RulePart place={t`${place}Portion of`} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      </Line>
      <Line>
        <Lead>{t`Without it`}</Lead>
        <Choice
          label={t`${place}When the value has no such part`}
          hideLabel
          small
          items={[
            { id: 'stop', text: t`is a stop`, detail: t`The record waits until its value is corrected` },
            { id: 'blank', text: t`leave the field blank` },
            { id: 'whole', text: t`take all of the value` },
          ]}
          value={rule.missing}
          onChange={(missing) => onChange({ ...rule, missing: missing as PortionRule['missing'] })}
        />
      </Line>
    </>
  );
}
