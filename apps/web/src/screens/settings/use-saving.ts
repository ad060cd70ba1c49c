import type { QueryKey } from '@tanstack/react-query';
import { useMutation, useQueryClient } from '@tanstack/react-query';

/** A change whose answer is the new state of what was changed, kept under its key at once. */
export function useSaving<Answer, Input>(queryKey: QueryKey, send: (input: Input) => Promise<Answer>, onDone?: (answer: Answer) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (answer) => {
      client.setQueryData(queryKey, answer);
      void client.invalidateQueries({ queryKey: ['desk'] });
      onDone?.(answer);
    },
  });
}
