import { t } from '@mailbag/core/words';
import { phrase } from '../../../ui/phrase';
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
      <Lead>{t`Round`}</Lead>
      <Choice
        label={t`${place}Rounding`}
        hideLabel
        small
        items={[
          { id: 'none', text: t`not` },
          { id: 'half-up', text: t`half up`, detail: t`2.345 becomes 2.35` },
          { id: 'half-even', text: t`half to even`, detail: t`2.345 becomes 2.34, 2.355 becomes 2.36` },
        ]}
        value={round?.how ?? 'none'}
        onChange={(how) => onChange(how === 'none' ? null : { decimals: round?.decimals ?? 2, how: how as Rounding['how'] })}
      />
      {round && (
        <>{phrase`to${(
          <WholeNumber
            label={t`${place}Decimals`}
            value={round.decimals}
            minimum={0}
            maximum={20}
            onChange={(decimals) => onChange({ ...round, decimals })}
          />
        )}decimals`}</>
      )}
    </Line>
  );
}
