import { t } from '@mailbag/core/words';
import type { Query } from '@tanstack/react-query';
import { notifyManager, useQueryClient } from '@tanstack/react-query';
import { useCallback, useSyncExternalStore } from 'react';
import { Button } from './button';
import { Empty, Waiting } from './layout';

/** A question of what is on the screen that failed, and has no answer to show. */
const hasFailed = (query: Query): boolean =>
  query.state.status === 'error' &&
  query.state.data === undefined &&
  query.state.fetchStatus === 'idle' &&
  query.observers.some(({ options }) => options.enabled !== false);

/** Stands where an answer is waited for; says why when it does not come. @param what as in “Reading the mailings …” */
export function Loading({ what }: { what: string }) {
  const client = useQueryClient();
  const cache = client.getQueryCache();
  const firstFailed = (): Query | null => cache.getAll().find(hasFailed) ?? null;
  const failed = useSyncExternalStore(
    useCallback((tell: () => void) => cache.subscribe(notifyManager.batchCalls(tell)), [cache]),
    firstFailed,
    firstFailed,
  );
  if (!failed) return <Waiting role="status">{t`Reading ${what} …`}</Waiting>;
  const why = failed.state.error instanceof Error ? failed.state.error.message : String(failed.state.error);
  return (
    <Empty
      title={t`${what.charAt(0).toUpperCase()}${what.slice(1)} cannot be read`}
      action={
        <Button
          onPress={() => void client.refetchQueries({ type: 'active', predicate: ({ state }) => state.status === 'error' })}
        >{t`Try again`}</Button>
      }
    >
      {why}
    </Empty>
  );
}
