import { t } from '@mailbag/core/words';
import { useEffect, useRef } from 'react';
import { useShortcutHelp } from '../../../ui/shortcuts';

const KEYS_TOLD = [
  { keys: '← → ↑ ↓', what: t`Move what is chosen; with Shift by ten points, with Alt its edges` },
  { keys: t`Alt ↑ ↓`, what: t`In the list: change the tab order` },
  { keys: 'Enter', what: t`On a page: draw with the tool in the middle` },
  { keys: t`Del`, what: t`Remove what is chosen` },
  { keys: t`Ctrl D`, what: t`Duplicate` },
  { keys: t`Ctrl C Ctrl X Ctrl V`, what: t`Copy, cut, paste` },
  { keys: t`Ctrl A`, what: t`Choose all` },
  { keys: t`Esc`, what: t`Put down the tool, then clear the selection` },
];

export interface LayoutKeys {
  /** Points to the right and down. */
  nudge: (dx: number, dy: number) => void;
  /** Points that the right and lower edges move. */
  grow: (dx: number, dy: number) => void;
  remove: () => void;
  duplicate: () => void;
  copy: () => void;
  cut: () => void;
  paste: () => void;
  all: () => void;
  /** Lets go of the tool, then of what is chosen. */
  escape: () => void;
  /** Puts what the tool draws in the middle of the page; false: there is no such tool. */
  place: () => boolean;
  /** Moves what is chosen in tab order. */
  reorder: (by: -1 | 1) => void;
}

const isText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('input, textarea, select, [contenteditable="true"], [role="dialog"], [role="menu"]') !== null;
const arrows: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** The keys of the drawing board; they hold on its pages and in its lists, never in a text. */
export function useLayoutKeys(keys: LayoutKeys, board: React.RefObject<HTMLElement | null>): void {
  useShortcutHelp(KEYS_TOLD);
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const { target, key, shiftKey, altKey } = event;
      const isHere = target === document.body || (target instanceof Node && board.current?.contains(target) === true);
      if (!isHere || event.defaultPrevented || isText(target)) return;
      const now = latest.current;
      const isCommand = event.ctrlKey || event.metaKey;
      const isInList = target instanceof HTMLElement && target.closest('[role="listbox"], [role="toolbar"]') !== null;
      const arrow = arrows[key];
      let act: (() => unknown) | undefined;
      if (arrow && altKey && isInList) act = () => now.reorder(arrow[1] < 0 ? -1 : 1);
      else if (arrow && !isCommand && !isInList) {
        const [dx, dy] = arrow.map((one) => one * (shiftKey ? 10 : 1)) as [number, number];
        act = () => (altKey ? now.grow(dx, dy) : now.nudge(dx, dy));
      } else if (isCommand) act = { d: now.duplicate, c: now.copy, x: now.cut, v: now.paste, a: now.all }[key.toLowerCase()];
      else if (key === 'Delete' || key === 'Backspace') act = now.remove;
      else if (key === 'Escape') act = now.escape;
      else if (key === 'Enter' && target instanceof HTMLElement && target.dataset['page'] !== undefined && now.place())
        act = () => undefined;
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, [board]);
}
