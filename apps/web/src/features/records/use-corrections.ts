import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../../api/client';
import { counted } from '../when';

interface Step {
  text: string;
  undo: () => Promise<unknown>;
}

/** Changes values of a source, and remembers the last step so that it can be taken back at once. */
export function useCorrections(sourceId: number) {
  const client = useQueryClient();
  const [last, setLast] = useState<Step | null>(null);
  const refresh = async (): Promise<void> => {
    await Promise.all(
      [['records', sourceId], ['sources'], ['checks'], ['corrections', sourceId]].map((queryKey) => client.invalidateQueries({ queryKey })),
    );
  };
  const run = useMutation({ mutationFn: (work: () => Promise<unknown>) => work(), onSettled: refresh });
  const undoStep = (step: string) => () => api.remove(`/api/sources/${sourceId}/steps/${step}`);
  return {
    /** The change that can be taken back. */
    last,
    forget: () => setLast(null),
    error: run.error,
    isBusy: run.isPending,
    correct: (row: number, column: string, value: string): void =>
      run.mutate(async () => {
        const { changed, step } = await api.post<{ changed: number; step: string }>(`/api/sources/${sourceId}/corrections`, {
          row,
          column,
          value,
        });
        if (changed > 0) setLast({ text: `“${column}” of row ${row} changed.`, undo: undoStep(step) });
      }),
    undo: (id: number): void =>
      run.mutate(async () => {
        await api.remove(`/api/sources/${sourceId}/corrections/${id}`);
        setLast(null);
      }),
    mend: (mailingId: number, which: { code: string; column?: string; row?: number }): void =>
      run.mutate(async () => {
        const { changed, step } = await api.post<{ changed: number; step: string }>(`/api/mailings/${mailingId}/mends`, which);
        setLast({ text: `${counted(changed, 'value')} mended.`, undo: undoStep(step) });
      }),
    accept: (mailingId: number, look: { row: number; code: string; column: string | null; field: string | null; reason: string }): void =>
      run.mutate(() => api.post(`/api/mailings/${mailingId}/acceptances`, look)),
    takeBack: (mailingId: number, acceptanceId: number): void =>
      run.mutate(() => api.remove(`/api/mailings/${mailingId}/acceptances/${acceptanceId}`)),
    undoLast: (): void => {
      const step = last;
      setLast(null);
      if (step) run.mutate(step.undo);
    },
  };
}
export type Corrections = ReturnType<typeof useCorrections>;
