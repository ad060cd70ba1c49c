import { useSyncExternalStore } from 'react';
import { narrowQuery } from '../theme';

const query = window.matchMedia(narrowQuery);
const subscribe = (listener: () => void): (() => void) => {
  query.addEventListener('change', listener);
  return () => query.removeEventListener('change', listener);
};

/** Whether there is only room for one thing beside the other, as on a small window or at 200 %. */
export const useNarrow = (): boolean => useSyncExternalStore(subscribe, () => query.matches);
