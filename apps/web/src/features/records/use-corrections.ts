import { plural, t } from '@mailbag/core/words';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, useSyncExternalStore } from 'react';
import { api } from '../../api/client';

interface Step {
  text: string;
  /** When it was made, milliseconds since 1970. */
  at: number;
  undo: () => Promise<unknown>;
}

/** A finding that a person is to look at. */
interface Look {
  row: number;
  code: string;
  column: string | null;
  field: string | null;
}

/** Steps that can be taken back, by source: they outlast the screen on which they were made. */
const steps = new Map<number, readonly Step[]>();
const listeners = new Set<() => void>();
const none: readonly Step[] = [];
const MOST_STEPS = 100;

function put(sourceId: number, own: readonly Step[]): void {
  steps.set(sourceId, own);
  for (const listener of listeners) listener();
}
const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Changes values of a source, and remembers its steps so that they can be taken back one after the other. */
export function useCorrections(sourceId: number) {
  const client = useQueryClient();
  const own = useSyncExternalStore(subscribe, () => steps.get(sourceId) ?? none);
  const last = own.at(-1) ?? null;
  const [closed, close] = useState<Step | null>(null);
  const add = (step: Omit<Step, 'at'>): void =>
    put(sourceId, [...(steps.get(sourceId) ?? none).slice(1 - MOST_STEPS), { ...step, at: Date.now() }]);
  const drop = (step: Step): void =>
    put(
      sourceId,
      (steps.get(sourceId) ?? none).filter((one) => one !== step),
    );
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
    /** Whether its line is shown. */
    isTold: last !== null && last !== closed,
    forget: () => close(last),
    error: run.error,
    isBusy: run.isPending,
    correct: (row: number, column: string, value: string): void =>
      run.mutate(async () => {
        const { changed, step } = await api.post<{ changed: number; step: string }>(`/api/sources/${sourceId}/corrections`, {
          row,
          column,
          value,
        });
        if (changed > 0) add({ text: t`“${column}” of row ${row} changed.`, undo: undoStep(step) });
      }),
    /** Changes many values in one step. @param told what is said of it, by how many they were */
    correctMany: (changes: readonly { row: number; column: string; value: string }[], told: (changed: number) => string): void =>
      run.mutate(async () => {
        const { changed, step } = await api.post<{ changed: number; step: string }>(`/api/sources/${sourceId}/corrections/many`, {
          changes,
        });
        if (changed > 0) add({ text: told(changed), undo: undoStep(step) });
      }),
    replace: (what: { find: string; replace: string; column: string | null; isWhole: boolean }): void =>
      run.mutate(async () => {
        const { changed, step } = await api.post<{ changed: number; step: string }>(`/api/sources/${sourceId}/replacements`, what);
        if (changed > 0) add({ text: t`“${what.find}” replaced in ${plural(changed, 'value')}.`, undo: undoStep(step) });
      }),
    undo: (id: number): void =>
      run.mutate(async () => {
        await api.remove(`/api/sources/${sourceId}/corrections/${id}`);
        // Which of the steps it was is not known here, and none of them may undo it once more.
        put(sourceId, none);
      }),
    mend: (mailingId: number, which: { code: string; column?: string; row?: number }): void =>
      run.mutate(async () => {
        const { changed, step } = await api.post<{ changed: number; step: string }>(`/api/mailings/${mailingId}/mends`, which);
        add({ text: t`${plural(changed, 'value')} fixed.`, undo: undoStep(step) });
      }),
    /** Accepts looks with one reason. */
    accept: (mailingId: number, looks: readonly Look[], reason: string): void =>
      run.mutate(() => api.post(`/api/mailings/${mailingId}/acceptances`, { looks, reason })),
    takeBack: (mailingId: number, acceptanceId: number): void =>
      run.mutate(() => api.remove(`/api/mailings/${mailingId}/acceptances/${acceptanceId}`)),
    undoLast: (): void => {
      const step = last;
      if (!step) return;
      drop(step);
      run.mutate(step.undo);
    },
  };
}
export type Corrections = ReturnType<typeof useCorrections>;
