import type { Clash } from '@mailbag/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import { queries } from '../../api/queries';
import { useMayChange } from '../../ui/rights';
import type { Saving } from './document-desk';
import type { OpenDesks } from './open-desks';

/** A document as it is being worked on in one part of a screen, to which the steps of undo belong. */
export interface DeskEditor<Document> {
  document: Document;
  change: (update: (document: Document) => Document) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
  /** When what `undo` takes back was made, milliseconds since 1970; 0: there is nothing. */
  lastStepAt: number;
  saving: Saving;
  /** What somebody else changed differently. */
  clashes: readonly Clash[];
  settleClash: (clash: Clash, mine: boolean) => void;
  /** Sends what is not saved yet; resolves when the server has it. */
  settle: () => Promise<void>;
}

/** @param stale keys of kept answers that a saving makes stale; the same list at every call */
export function useDesk<Document>(
  desks: OpenDesks<Document>,
  id: number,
  { version, document: saved }: { version: number; document: Document },
  part: string,
  stale: readonly string[],
): DeskEditor<Document> {
  const client = useQueryClient();
  const mayChange = useMayChange();
  const { data: account } = useQuery(queries.account());
  // Whoever is signed out for a moment is still at it.
  const lastId = useRef(0);
  const accountId = account?.account?.id ?? lastId.current;
  lastId.current = accountId;
  const ears = useMemo(
    () => ({
      saved: (one: number): void => void Promise.all(stale.map((name) => client.invalidateQueries({ queryKey: [name, one] }))),
      signedOut: (): void => void client.invalidateQueries({ queryKey: ['account'] }),
    }),
    [client, stale],
  );
  // The desk outlasts the screen: asked for again, it is the same one.
  const desk = desks.open(id, { version, document: saved }, accountId, ears);
  const { document, saving, clashes } = useSyncExternalStore(desk.subscribe, desk.shown);
  useEffect(() => desk.seen(version, saved), [desk, version, saved]);
  return {
    document,
    // Who only looks finds everything as it is.
    change: (update) => mayChange && desk.change(update, part),
    undo: desk.canUndo(part) ? () => desk.undo(part) : null,
    redo: desk.canRedo(part) ? () => desk.redo(part) : null,
    lastStepAt: desk.lastStepAt(part),
    saving,
    clashes,
    settleClash: (clash, mine) => desk.settleClash(clash, mine),
    settle: () => desk.settle(),
  };
}
