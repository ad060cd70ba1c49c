import type { MailingDetail, MailingPlan, MailingSaveAnswer } from '@mailbag/contract';
import { isMailbagError } from '@mailbag/core';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { useMayChange } from '../../ui/rights';

export type Saving = { state: 'saved' | 'saving' | 'waiting' } | { state: 'failed'; why: string };

export interface PlanEditor {
  plan: MailingPlan;
  change: (update: (plan: MailingPlan) => MailingPlan) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
  saving: Saving;
  /** Sends what is not saved yet; resolves when the server has it. */
  settle: () => Promise<void>;
}

/** Milliseconds after the last change until it is sent. */
const CALM = 350;

/** The plan of a mailing as it is being worked on: saves itself, every step can be undone and done again. */
export function usePlan(mailing: MailingDetail): PlanEditor {
  const client = useQueryClient();
  const mayChange = useMayChange();
  const [{ past, plan, future }, setSteps] = useState({ past: [] as MailingPlan[], plan: mailing.plan, future: [] as MailingPlan[] });
  const [saving, setSaving] = useState<Saving>({ state: 'saved' });
  const version = useRef(mailing.version);
  const latest = useRef(plan);
  const saved = useRef(mailing.plan);
  const underWay = useRef<Promise<void> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const { id } = mailing;

  const send = useCallback(async (): Promise<void> => {
    while (underWay.current) await underWay.current;
    const wanted = latest.current;
    if (wanted === saved.current) return;
    setSaving({ state: 'saving' });
    const work = (async () => {
      try {
        const answer = await api.put<MailingSaveAnswer>(`/api/mailings/${id}`, { version: version.current, plan: wanted });
        version.current = answer.version;
        saved.current = wanted;
        setSaving({ state: latest.current === wanted ? 'saved' : 'waiting' });
        await Promise.all([
          client.invalidateQueries({ queryKey: ['mailings', id] }),
          client.invalidateQueries({ queryKey: ['checks', id] }),
        ]);
      } catch (error) {
        setSaving({ state: 'failed', why: sentenceOf(error) });
        if (isMailbagError(error) && error.code === 'mailing-changed-elsewhere') {
          const fresh = await api.get<MailingDetail>(`/api/mailings/${id}`);
          version.current = fresh.version;
          saved.current = fresh.plan;
          latest.current = fresh.plan;
          setSteps({ past: [], plan: fresh.plan, future: [] });
        }
      }
    })();
    underWay.current = work;
    await work;
    underWay.current = null;
  }, [client, id]);

  const schedule = useCallback(() => {
    setSaving({ state: 'waiting' });
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => void send(), CALM);
  }, [send]);

  // Leaving the mailing sends what is waiting.
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
      void send();
    },
    [send],
  );

  const move = (to: { past: MailingPlan[]; plan: MailingPlan; future: MailingPlan[] }): void => {
    latest.current = to.plan;
    setSteps(to);
    schedule();
  };
  const change: PlanEditor['change'] = (update) => {
    // Who only looks finds everything as it is.
    if (!mayChange) return;
    const next = update(latest.current);
    if (next !== latest.current) move({ past: [...past.slice(-99), latest.current], plan: next, future: [] });
  };
  const before = past.at(-1);
  const after = future[0];
  return {
    plan,
    change,
    undo: before ? () => move({ past: past.slice(0, -1), plan: before, future: [plan, ...future] }) : null,
    redo: after ? () => move({ past: [...past, plan], plan: after, future: future.slice(1) }) : null,
    saving,
    settle: async () => {
      if (timer.current) clearTimeout(timer.current);
      await send();
    },
  };
}
