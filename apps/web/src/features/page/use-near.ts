import type { RefObject } from 'react';
import { useEffect, useState } from 'react';

/** Whether something is on the screen, or nearly: of four hundred pages few are drawn. */
export function useNear(target: RefObject<HTMLElement | null>): boolean {
  const [isNear, setNear] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver(([entry]) => entry && setNear(entry.isIntersecting), { rootMargin: '900px 200px' });
    if (target.current) watch.observe(target.current);
    return () => watch.disconnect();
  }, [target]);
  return isNear;
}
