import type { LiveEvent } from '@mailbag/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Which kept answers an event makes stale. */
const staleBy: Record<LiveEvent['topic'], (id: number) => unknown[][]> = {
  batch: (id) => [['batches', id], ['batches', 'running'], ['desk'], ['mailings']],
  copies: () => [['copies'], ['desk'], ['bounces', 'reports'], ['print-runs', 'waiting']],
  source: (id) => [['sources'], ['records', id], ['corrections', id], ['mailings']],
  checks: (id) => [['checks', id], ['desk']],
  // An intake tells whether what makes its copies has changed since it was published.
  mailing: (id) => [['checks', id], ['mailings', id], ['intakes']],
  here: (id) => [['here', id]],
  senders: () => [['senders'], ['desk']],
  intake: () => [['intakes'], ['desk']],
  wastebasket: () => [
    ...[['wastebasket'], ['templates'], ['sources'], ['mailings'], ['intakes'], ['desk']],
    ...[['connections'], ['senders'], ['printers'], ['registers'], ['saved-views']],
  ],
  'print-run': () => [['print-runs'], ['desk']],
  register: () => [['registers'], ['desk']],
  safety: () => [['safety'], ['desk']],
  template: (id) => [
    ['templates', id],
    ['layout', id],
  ],
};
/** Milliseconds between two readings of the same thing while much happens. */
const CALM = 600;
/** Milliseconds until a stream that was refused is asked for again. */
const AGAIN = 3000;

/** Listens to what happens on the server and has it read again, calmly. */
export function useLive(): void {
  const client = useQueryClient();
  useEffect(() => {
    let source: EventSource;
    let again: ReturnType<typeof setTimeout> | null = null;
    const waiting = new Map<string, unknown[]>();
    let timer: ReturnType<typeof setTimeout> | null = null;
    const flush = (): void => {
      timer = null;
      for (const queryKey of waiting.values()) void client.invalidateQueries({ queryKey });
      waiting.clear();
    };
    const hear = (message: MessageEvent<string>): void => {
      const { topic, id } = JSON.parse(message.data) as LiveEvent;
      for (const key of staleBy[topic](id)) waiting.set(JSON.stringify(key), key);
      timer ??= setTimeout(flush, CALM);
    };
    const listen = (): void => {
      source = new EventSource('/api/events');
      source.onmessage = hear;
      // After a break everything may have changed.
      source.onopen = () =>
        void client.invalidateQueries({
          predicate: ({ queryKey, state }) =>
            state.status === 'error' ||
            ['batches', 'copies', 'desk', 'checks', 'sources', 'mailings', 'here', 'layout', 'account', 'intakes'].includes(
              String(queryKey[0]),
            ),
        });
      // A stream that was refused is not opened again by itself: the session was over, or something in front of the server answered.
      source.onerror = () => {
        if (source.readyState === EventSource.CLOSED) again = setTimeout(listen, AGAIN);
      };
    };
    listen();
    return () => {
      source.close();
      if (again) clearTimeout(again);
      if (timer) clearTimeout(timer);
    };
  }, [client]);
}
