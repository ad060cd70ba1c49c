import type { FillRule } from '@mailbag/core';
import { ruleSentence } from '@mailbag/core';
import { Chip, Say } from '../../ui/mark';

/** A rule as a short sentence of chips. */
export function RuleWords({ rule }: { rule: FillRule | undefined }) {
  if (!rule) return <Say>nothing yet</Say>;
  return (
    <>
      {ruleSentence(rule).map((part, index) =>
        'column' in part ? (
          <Chip key={index} $column>
            {part.column}
          </Chip>
        ) : 'text' in part ? (
          part.text.trim() === '' ? null : (
            <Chip key={index}>{part.text}</Chip>
          )
        ) : (
          <Say key={index}>{part.say} </Say>
        ),
      )}
    </>
  );
}
