import { useCallback } from 'react';
import { useNavigate, useSearchParams } from 'react-router';

/** What is changed; null and empty texts are taken out. */
export type AddressChanges = Readonly<Record<string, string | number | boolean | null>>;

/** The query of an address with changes, in the order in which it stood. */
export function changedQuery(query: string, changes: AddressChanges): string {
  const next = new URLSearchParams(query);
  for (const [key, value] of Object.entries(changes)) {
    if (value === null || value === '' || value === false) next.delete(key);
    else next.set(key, value === true ? 'yes' : String(value));
  }
  const text = next.toString();
  return text === '' ? '' : `?${text}`;
}

/**
 * What of a screen stands in its address: a reload, a link that is sent on and the way back show the same. Going from one record or field to the next
 * is no step back by itself.
 */
export function useAddress(): { query: URLSearchParams; put: (changes: AddressChanges) => void } {
  const [query] = useSearchParams();
  const navigate = useNavigate();
  // Read where it stands, not as it was drawn: of two changes in a row neither is lost.
  const put = useCallback(
    (changes: AddressChanges) => {
      const { search, pathname } = window.location;
      const next = changedQuery(search, changes);
      if (next !== search) void navigate({ pathname, search: next }, { replace: true });
    },
    [navigate],
  );
  return { query, put };
}
