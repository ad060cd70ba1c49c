import { t } from '@mailbag/core/words';
import { useEffect, useState } from 'react';
import { VisuallyHidden } from 'react-aria-components';
import type { Saving } from './document-desk';
import { savedWords } from './saved-words';

/** Milliseconds for which nothing is changed before it is said that all is saved. */
const CALM = 2000;

/**
 * What is told aloud of how far a document is saved: not each of many changes, but once that all of them are, when nothing is changed for a while,
 * and at once what keeps them from being saved. Empty: there is nothing to tell.
 */
export function useToldSaving(saving: Saving): string {
  const [told, setTold] = useState('');
  const [hasChanged, setHasChanged] = useState(false);
  const { state } = saving;
  useEffect(() => {
    if (state === 'saving' || state === 'waiting') {
      setHasChanged(true);
      return setTold('');
    }
    if (state !== 'saved') return setTold(savedWords(saving));
    if (!hasChanged) return;
    const timer = setTimeout(() => setTold(t`All changes are saved.`), CALM);
    return () => clearTimeout(timer);
  }, [state, saving, hasChanged]);
  return told;
}

/** How far a document is saved, to be seen at every change and heard when something is to be said. */
export function SavedState({ saving, label }: { saving: Saving; label?: string }) {
  const told = useToldSaving(saving);
  const words = savedWords(saving);
  return (
    <>
      <span>{label === undefined ? words : `${label}: ${words}`}</span>
      <VisuallyHidden>
        <span role="status">{told}</span>
      </VisuallyHidden>
    </>
  );
}
