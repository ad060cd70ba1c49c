import type { RefObject } from 'react';
import { useLayoutEffect, useRef } from 'react';

/** What was given last, for what is called later: the box stays the same, so that nothing is drawn anew for it. */
export function useLatest<Value>(value: Value): RefObject<Value> {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}
