import { useEffect, useMemo } from 'react';
import type { Shortcut } from './shortcuts';
import { shortcuts, useShortcutHelp } from './shortcuts';

/** Where letters are typed or choose something, they are no shortcut. */
const takesLetters = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (/^(input|textarea|select)$/i.test(target.tagName) ||
    target.isContentEditable ||
    target.closest('[role=listbox], [role=dialog]') !== null);

/**
 * A single key of a screen, unless those are switched off. Null: it does nothing now.
 * @param what it does, for the list of shortcuts
 */
export function useKey(
  key: string,
  what: string,
  act: (() => void) | null,
  { isEverywhere = false }: Pick<Shortcut, 'isEverywhere'> = {},
): void {
  const isOn = act !== null;
  useShortcutHelp(useMemo(() => (isOn ? [{ keys: key.toUpperCase(), what, isEverywhere }] : null), [isOn, key, what, isEverywhere]));
  useEffect(() => {
    if (!act) return;
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || takesLetters(event.target)) return;
      if (event.key.toLowerCase() !== key || !shortcuts.areLettersOn) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [key, act]);
}
