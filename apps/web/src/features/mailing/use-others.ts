import { t } from '@mailbag/core/words';
import type { HereAnswer } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api } from '../../api/client';
import { randomKey } from '../../platform/random-key';

/** This window, among all that have the same mailing open. */
const WINDOW = randomKey();
/** Milliseconds between two signs of life. */
const ALIVE = 8000;

/** Who else has a mailing open just now, in words; told at once when somebody comes or goes. */
export function useOthers(mailingId: number): string[] {
  const { data } = useQuery({
    queryKey: ['here', mailingId],
    queryFn: () => api.post<HereAnswer>(`/api/mailings/${mailingId}/here`, { window: WINDOW }),
    refetchInterval: ALIVE,
    staleTime: 0,
    retry: false,
  });
  useEffect(() => {
    const leave = (): void =>
      void fetch(`/api/mailings/${mailingId}/here`, {
        method: 'POST',
        keepalive: true,
        headers: { 'x-mailbag': '1', 'content-type': 'application/json' },
        body: JSON.stringify({ window: WINDOW, leaves: true }),
      }).catch(() => undefined);
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [mailingId]);
  return data ? [...(data.elsewhere ? [t`you, in another window`] : []), ...data.others] : [];
}
