import type { Clash } from '@mailbag/core';
import { Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { ClashNotice } from './clash-notice';
import type { DeskEditor } from './use-desk';

/** What keeps a document from being saved as it is shown: a refusal, and what somebody else changed meanwhile. */
export function SavingNotices({
  editor: { saving, clashes, settleClash },
  placeWords,
}: {
  editor: Pick<DeskEditor<unknown>, 'saving' | 'clashes' | 'settleClash'>;
  placeWords: (place: Clash['place']) => string;
}) {
  if (saving.state !== 'failed' && clashes.length === 0) return null;
  return (
    <Stack $gap={8} style={{ padding: '0 16px 10px' }}>
      {saving.state === 'failed' && <Notice tone="brick">{saving.why}</Notice>}
      {clashes.map((clash) => (
        <ClashNotice
          key={clash.place.join('/')}
          clash={clash}
          place={placeWords(clash.place)}
          onSettle={(mine) => settleClash(clash, mine)}
        />
      ))}
    </Stack>
  );
}
