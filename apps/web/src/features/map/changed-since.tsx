import { plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { LastCopyAnswer } from '@mailbag/contract';
import { Link } from 'react-router';
import { Notice } from '../../ui/mark';

/** Values that are told in the sentence; the row of the source shows all of them. */
const MOST_TOLD = 4;
const valueWords = (value: string): string => (value === '' ? t`empty` : `“${value}”`);

/** What of a record has changed since its last copy; nothing where nothing has. */
export function ChangedSince({ lastCopy: { copy, batch, changed } }: { lastCopy: LastCopyAnswer }) {
  if (changed.length === 0) return null;
  return (
    <Notice tone="ochre">
      {phrase`${plural(changed.length, 'value')} changed since its copy in ${(<Link to={`/ledger?copy=${copy}`}>{t`batch ${batch}`}</Link>)}: ${changed
        .slice(0, MOST_TOLD)
        .map(({ column, was, is }) => t`${column} was ${valueWords(was)} and is ${valueWords(is)}`)
        .join('; ')}`}
      {changed.length > MOST_TOLD && t` and more, shown in the row`}
    </Notice>
  );
}
