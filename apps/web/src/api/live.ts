import type { LiveEvent } from '@mailbag/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Which kept answers an event makes stale. */
const staleBy: Record<LiveEvent['topic'], (id: number) => unknown[][]> = {
  batch: (id) => [['batches', id], ['batches', 'running'], ['desk'], ['mailings']],
  copies: () => [['copies'], ['desk'], ['bounces', 'reports'], ['print-runs', 'waiting']],
  source: (id) => [['sources'], ['records', id], ['corrections', id], ['mailings']],
  checks: (id) => [['checks', id], ['desk']],
  mailing: (id) => [['checks', id]],
  senders: () => [['senders'], ['desk']],
  'print-run': () => [['print-runs'], ['desk']],
  register: () => [['registers'], ['desk']],
  safety: () => [['safety'], ['desk']],
};
/** Milliseconds between two readings of the same thing while much happens. */
const CALM = 600;

/** Listens to what happens on the server and has it read again, calmly. */
export function useLive(): void {
  const client = useQueryClient();
  useEffect(() => {
    const source = new EventSource('/api/events');
    const waiting = new Map<string, unknown[]>();
    let timer: ReturnType<typeof setTimeout> | null = null;
    const flush = (): void => {
      timer = null;
      for (const queryKey of waiting.values()) void client.invalidateQueries({ queryKey });
      waiting.clear();
    };
    source.onmessage = (message: MessageEvent<string>) => {
      const { topic, id } = JSON.parse(message.data) as LiveEvent;
      for (const key of staleBy[topic](id)) waiting.set(JSON.stringify(key), key);
      timer ??= setTimeout(flush, CALM);
    };
    // After a break everything may have changed.
    source.onopen = () =>
      void client.invalidateQueries({
        predicate: ({ queryKey }) => ['batches', 'copies', 'desk', 'checks', 'sources'].includes(String(queryKey[0])),
      });
    return () => {
      source.close();
      if (timer) clearTimeout(timer);
    };
  }, [client]);
}
