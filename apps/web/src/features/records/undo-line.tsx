import { t } from '@mailbag/core/words';
import { Undo2, X } from 'lucide-react';
import { sentenceOf } from '../../api/client';
import { Button, IconButton } from '../../ui/button';
import { Row } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import type { Corrections } from './use-corrections';

/** What was changed last, with the way back; or why it could not be. */
export function UndoLine({ corrections }: { corrections: Corrections }) {
  if (corrections.error) return <Notice tone="brick">{sentenceOf(corrections.error)}</Notice>;
  if (!corrections.last || !corrections.isTold) return null;
  return (
    <Notice tone="moss">
      <Row>
        {corrections.last.text}
        <Button changes small onPress={corrections.undoLast}>
          <Undo2 size={13} />
          {t`Undo`}
        </Button>
        <IconButton label={t`Close`} small onPress={corrections.forget}>
          <X size={14} />
        </IconButton>
      </Row>
    </Notice>
  );
}
