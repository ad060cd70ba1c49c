import type { RefObject } from 'react';
import { useEffect, useRef } from 'react';

/**
 * Whoever goes to another screen reads on from its heading, as soon as that is there (WCAG 2.2, 2.4.3). Focus that stands in the screen already, on a
 * tab of it or in a box that took it, stays where it is.
 */
export function useHeadingFocus(main: RefObject<HTMLElement | null>, pathname: string): void {
  const before = useRef(pathname);
  useEffect(() => {
    const screen = main.current;
    if (before.current === pathname || !screen) return;
    before.current = pathname;
    const from = document.activeElement;
    const watch = new MutationObserver(() => void look());
    const look = (): boolean => {
      const now = document.activeElement;
      // Somebody went on meanwhile, or something of the screen took the focus.
      const isElsewhere = now !== from && now !== document.body;
      if (isElsewhere || screen.contains(now)) return (watch.disconnect(), true);
      const heading = screen.querySelector('h1');
      if (!heading) return false;
      watch.disconnect();
      heading.tabIndex = -1;
      heading.focus();
      return true;
    };
    if (!look()) watch.observe(screen, { childList: true, subtree: true });
    return () => watch.disconnect();
  }, [main, pathname]);
}
