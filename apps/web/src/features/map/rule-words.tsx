import { t, translated } from '@mailbag/core/words';
import type { FillRule, SentencePart } from '@mailbag/core';
import { ruleSentence } from '@mailbag/core';
import { Chip, Say } from '../../ui/mark';

/** A sentence of chips: columns, texts, and words between them. */
export function SentenceWords({ parts }: { parts: readonly SentencePart[] }) {
  return (
    <>
      {parts.map((part, index) =>
        'column' in part ? (
          <Chip key={index} $column>
            {part.column}
          </Chip>
        ) : 'text' in part ? (
          part.text.trim() === '' ? null : (
            <Chip key={index}>{part.text}</Chip>
          )
        ) : (
          <Say key={index}>{translated(part.say)} </Say>
        ),
      )}
    </>
  );
}

/** A rule as a short sentence of chips. */
export function RuleWords({ rule }: { rule: FillRule | undefined }) {
  return rule ? <SentenceWords parts={ruleSentence(rule)} /> : <Say>{t`nothing yet`}</Say>;
}
