import { useEffect } from 'react';

/** Where letters are typed or choose something, they are no shortcut. */
const takesLetters = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (/^(input|textarea|select)$/i.test(target.tagName) ||
    target.isContentEditable ||
    target.closest('[role=listbox], [role=dialog]') !== null);

/** A single key of a screen. Null: it does nothing now. */
export function useKey(key: string, act: (() => void) | null): void {
  useEffect(() => {
    if (!act) return;
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || takesLetters(event.target)) return;
      if (event.key.toLowerCase() !== key) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [key, act]);
}
