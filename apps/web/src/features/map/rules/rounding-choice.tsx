import type { Rounding } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { WholeNumber } from './draft-text';
import { Lead, Line } from './parts';

/** To how many decimals, and where a half goes. */
export function RoundingChoice({
  place,
  round,
  onChange,
}: {
  place: string;
  round: Rounding | null;
  onChange: (round: Rounding | null) => void;
}) {
  return (
    <Line>
      <Lead>Round</Lead>
      <Choice
        label={`${place}Rounding`}
        hideLabel
        small
        items={[
          { id: 'none', text: 'not' },
          { id: 'half-up', text: 'half up', detail: '2.345 becomes 2.35' },
          { id: 'half-even', text: 'half to even', detail: '2.345 becomes 2.34, 2.355 becomes 2.36' },
        ]}
        value={round?.how ?? 'none'}
        onChange={(how) => onChange(how === 'none' ? null : { decimals: round?.decimals ?? 2, how: how as Rounding['how'] })}
      />
      {round && (
        <>
          to
          <WholeNumber
            label={`${place}Decimals`}
            value={round.decimals}
            least={0}
            most={20}
            onChange={(decimals) => onChange({ ...round, decimals })}
          />
          decimals
        </>
      )}
    </Line>
  );
}
