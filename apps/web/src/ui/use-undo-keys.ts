import { t } from '@mailbag/core/words';
import { useEffect } from 'react';
import { useShortcutHelp } from './shortcuts';

const UNDO = [
  { keys: t`Ctrl Z`, what: t`Undo` },
  { keys: t`Ctrl Y`, what: t`Redo` },
];

/** Whether the focus is in a text, which has an undo of its own. */
const isInText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (/^(input|textarea)$/i.test(target.tagName) || target.isContentEditable);

/** Ctrl+Z, Ctrl+Shift+Z and Ctrl+Y for what a screen shows. Null: there is nothing to take back, or to do again. */
export function useUndoKeys(undo: (() => void) | null, redo: (() => void) | null): void {
  useShortcutHelp(UNDO);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.defaultPrevented || isInText(event.target)) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      (key === 'y' || event.shiftKey ? redo : undo)?.();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [undo, redo]);
}
