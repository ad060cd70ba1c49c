import { t } from '@mailbag/core/words';
import { PencilLine } from 'lucide-react';
import { useState } from 'react';
import { AskDialog } from '../ui/ask-dialog';
import { IconButton } from '../ui/button';
import { TextInput } from '../ui/field';

/** Characters that a name holds at most, as the server takes it. */
const LONGEST = 200;

/** Gives a thing another name. */
export function Rename({ name, onRename }: { name: string; onRename: (name: string) => void }) {
  const [next, setNext] = useState(name);
  return (
    <AskDialog
      title={t`Rename “${name}”`}
      yes={t`Rename`}
      isReady={next.trim() !== '' && next.trim() !== name && next.trim().length <= LONGEST}
      onYes={() => onRename(next.trim())}
      opener={
        <IconButton changes label={t`Rename`} onPress={() => setNext(name)}>
          <PencilLine size={15} />
        </IconButton>
      }
    >
      <TextInput
        label={t`Name`}
        error={next.trim().length > LONGEST ? t`Use at most ${LONGEST} characters.` : null}
        value={next}
        onChange={setNext}
        autoFocus
      />
    </AskDialog>
  );
}
