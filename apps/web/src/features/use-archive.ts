import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/client';

/** Puts things of a kind away, or takes them back. @param kind as in their addresses, which is also the key under which their list is kept */
export function useArchive(kind: 'mailings' | 'templates') {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ ids, isArchived }: { ids: readonly number[]; isArchived: boolean }) =>
      Promise.all(ids.map((id) => api.post(`/api/${kind}/${id}/archive`, { isArchived }))),
    onSettled: () => client.invalidateQueries({ queryKey: [kind], exact: true }),
  });
}
