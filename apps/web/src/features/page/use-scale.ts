import type { PageSize } from '@mailbag/core';
import type { RefObject } from 'react';
import { useLayoutEffect, useState } from 'react';

/** Pixels: a page is no narrower for want of room, and no wider for plenty of it. */
const [NARROWEST, WIDEST] = [260, 820];

/** Pixels a point, so that the widest page fills the room of what it lies on. @param zoom 1: as wide as that room */
export function useScale(ground: RefObject<HTMLElement | null>, pages: readonly PageSize[], zoom: number): number {
  const [room, setRoom] = useState(600);
  // Known before the first picture of the screen, so that no page is seen in two sizes.
  useLayoutEffect(() => {
    const { current } = ground;
    if (!current) return;
    const { paddingLeft, paddingRight } = getComputedStyle(current);
    setRoom(current.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight));
    const watch = new ResizeObserver(([entry]) => entry && setRoom(entry.contentRect.width));
    watch.observe(current);
    return () => watch.disconnect();
  }, [ground]);
  const widest = Math.max(1, ...pages.map(({ width }) => width));
  return (Math.min(Math.max(NARROWEST, room), WIDEST) / widest) * zoom;
}
