import { count, t } from '@mailbag/core/words';
import { Check, UserMinus } from 'lucide-react';
import { useState } from 'react';
import { AskDialog } from '../../ui/ask-dialog';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Row } from '../../ui/layout';
import type { Item } from './finding-columns';

/** Those that can be accepted. */
export const looksIn = (items: readonly Item[]): readonly Item[] =>
  items.filter(({ finding, acceptance }) => finding.severity === 'look' && acceptance === null);

/** What can be done with the findings that are picked. */
export function FindingActions({
  picked,
  onAccept,
  onLeaveOut,
}: {
  picked: readonly Item[];
  onAccept: (reason: string) => void;
  onLeaveOut: () => void;
}) {
  const [reason, setReason] = useState('');
  const looks = looksIn(picked).length;
  return (
    <Row>
      {looks > 0 && (
        <AskDialog
          title={looks === 1 ? t`Accept this finding` : t`Accept ${count(looks)} findings`}
          yes={t`Accept`}
          isReady={reason.trim() !== ''}
          onYes={() => onAccept(reason.trim())}
          opener={
            <Button changes small>
              <Check size={13} />
              {t`Accept ${count(looks)} …`}
            </Button>
          }
        >
          <TextInput label={t`Why this is right`} value={reason} onChange={setReason} autoFocus />
        </AskDialog>
      )}
      <Button changes small onPress={onLeaveOut}>
        <UserMinus size={13} />
        {t`Leave out their records`}
      </Button>
    </Row>
  );
}
