import type { Virtualizer } from '@tanstack/react-virtual';
import type { RefObject } from 'react';
import { useEffect, useEffectEvent, useRef } from 'react';
import type { AddressChanges } from '../use-address';

/** Milliseconds after which a list that is scrolled stands still. */
const STILL = 300;

/**
 * Keeps in the address how far a list is scrolled down, as the row that comes first, and scrolls there when the list comes back.
 * @param at as the address says it; null: at its beginning
 */
export function useSavedScroll(
  frame: RefObject<HTMLDivElement | null>,
  virtual: Virtualizer<HTMLDivElement, Element>,
  rows: number,
  at: string | null,
  put: (changes: AddressChanges) => void,
): void {
  const isBack = useRef(false);
  useEffect(() => {
    const first = Number(at);
    if (isBack.current || rows === 0) return;
    if (!(first > 0)) {
      isBack.current = true;
      return;
    }
    // A list that is read from the server as one goes may not be so long yet.
    virtual.scrollToIndex(Math.min(first, rows - 1), { align: 'start' });
    isBack.current = first < rows;
  }, [virtual, rows, at]);
  const write = useEffectEvent((list: HTMLDivElement) => {
    const first = virtual.getVirtualItems().find(({ end }) => end > list.scrollTop);
    const next = first && list.scrollTop > 0 ? String(first.index) : null;
    if (next !== at) put({ at: next });
  });
  const isThere = rows > 0;
  useEffect(() => {
    const list = frame.current;
    if (!list || !isThere) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const onScroll = (): void => {
      clearTimeout(timer);
      timer = setTimeout(() => write(list), STILL);
    };
    list.addEventListener('scroll', onScroll, { passive: true });
    return () => {
      clearTimeout(timer);
      list.removeEventListener('scroll', onScroll);
    };
  }, [frame, isThere]);
}
