import { t } from '@mailbag/core/words';
import type { Cannot, Condition, CopyCount, Row } from '@mailbag/core';
import { conditionSentence, isCannot, ruleSentence } from '@mailbag/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { IconButton } from '../../ui/button';
import { Notice } from '../../ui/mark';
import { SentenceWords } from './rule-words';
import { Line } from './rules/parts';

/** Whether the record gets the template that is shown, and of several copies which one stands on the page. */
export function WhichCopy({
  condition,
  count,
  rows,
  part,
  onPart,
}: {
  condition: Condition | null;
  count: CopyCount | null;
  /** The record as each of its copies sees it, or why that cannot be told. */
  rows: readonly Row[] | Cannot;
  /** From 0. */
  part: number;
  onPart: (part: number) => void;
}) {
  const isUntold = isCannot(rows);
  const getsIt = !isUntold && rows.length > 0;
  const ofItems = !isUntold && count !== null;
  if (!condition && !ofItems) return null;
  return (
    <Notice tone={getsIt ? 'plain' : 'ochre'}>
      {condition && (
        <div>
          {isUntold ? rows.cannot : getsIt ? t`This record gets it: ` : t`This record does not get it: it is only for records for which `}
          {!isUntold && <SentenceWords parts={conditionSentence(condition, ruleSentence)} />}
        </div>
      )}
      {ofItems && !getsIt && !condition && t`This record does not get it: it has none of the items that get a copy.`}
      {ofItems && getsIt && (
        <Line>
          <span>{t`Copy ${part + 1} of ${rows.length} for this record`}</span>
          <IconButton label={t`Previous copy`} isDisabled={part === 0} onPress={() => onPart(part - 1)}>
            <ChevronLeft size={15} />
          </IconButton>
          <IconButton label={t`Next copy`} isDisabled={part >= rows.length - 1} onPress={() => onPart(part + 1)}>
            <ChevronRight size={15} />
          </IconButton>
        </Line>
      )}
    </Notice>
  );
}
