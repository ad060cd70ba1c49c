import { useCallback } from 'react';
import type { AddressChanges } from '../use-address';
import { useAddress } from '../use-address';

/** How a key of a list is called in the address of a screen. @param place what tells it from another list there; left out: there is none */
export const ownKey = (key: string, place?: string): string => (place === undefined ? key : `${place}.${key}`);

/** What of a list stands in the address: its search, order and place. */
export function useListAddress(place?: string): { read: (key: string) => string | null; put: (changes: AddressChanges) => void } {
  const { query, put } = useAddress();
  const putOwn = useCallback(
    (changes: AddressChanges) => put(Object.fromEntries(Object.entries(changes).map(([key, value]) => [ownKey(key, place), value]))),
    [put, place],
  );
  return { read: (key) => query.get(ownKey(key, place)), put: putOwn };
}
