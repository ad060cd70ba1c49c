import { t } from '@mailbag/core/words';
import { Redo2, Undo2 } from 'lucide-react';
import { IconButton } from '../../ui/button';

/** Null: there is nothing to take back, or to do again. */
export function UndoButtons({ undo, redo }: { undo: (() => void) | null; redo: (() => void) | null }) {
  return (
    <>
      <IconButton label={t`Undo (Ctrl+Z)`} isDisabled={!undo} onPress={() => undo?.()}>
        <Undo2 size={16} />
      </IconButton>
      <IconButton label={t`Redo (Ctrl+Shift+Z)`} isDisabled={!redo} onPress={() => redo?.()}>
        <Redo2 size={16} />
      </IconButton>
    </>
  );
}
