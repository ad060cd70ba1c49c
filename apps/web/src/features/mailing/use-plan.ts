import type { MailingDetail, MailingPlan } from '@mailbag/contract';
import type { Clash } from '@mailbag/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import { queries } from '../../api/queries';
import { useMayChange } from '../../ui/rights';
import type { Saving } from '../editing/document-desk';
import { planDesk } from './plan-desks';

export interface PlanEditor {
  plan: MailingPlan;
  change: (update: (plan: MailingPlan) => MailingPlan) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
  saving: Saving;
  /** What somebody else changed differently. */
  clashes: readonly Clash[];
  settleClash: (clash: Clash, mine: boolean) => void;
  /** Sends what is not saved yet; resolves when the server has it. */
  settle: () => Promise<void>;
}

/** The plan of a mailing as it is being worked on in one part of its screen, to which the steps of undo belong. */
export function usePlan(mailing: MailingDetail, part: string): PlanEditor {
  const client = useQueryClient();
  const mayChange = useMayChange();
  const { data: account } = useQuery(queries.account());
  // Whoever is signed out for a moment is still at it.
  const lastId = useRef(0);
  const accountId = account?.account?.id ?? lastId.current;
  lastId.current = accountId;
  const tell = useMemo(
    () => ({
      saved: (id: number): void =>
        void Promise.all([
          client.invalidateQueries({ queryKey: ['mailings', id] }),
          client.invalidateQueries({ queryKey: ['checks', id] }),
        ]),
      signedOut: (): void => void client.invalidateQueries({ queryKey: ['account'] }),
    }),
    [client],
  );
  // The desk outlasts the screen: asked for again, it is the same one.
  const desk = planDesk(mailing, accountId, tell);
  const { document, saving, clashes } = useSyncExternalStore(desk.subscribe, desk.shown);
  useEffect(() => desk.seen(mailing.version, mailing.plan), [desk, mailing.version, mailing.plan]);
  return {
    plan: document,
    // Who only looks finds everything as it is.
    change: (update) => mayChange && desk.change(update, part),
    undo: desk.canUndo(part) ? () => desk.undo(part) : null,
    redo: desk.canRedo(part) ? () => desk.redo(part) : null,
    saving,
    clashes,
    settleClash: (clash, mine) => desk.settleClash(clash, mine),
    settle: () => desk.settle(),
  };
}
