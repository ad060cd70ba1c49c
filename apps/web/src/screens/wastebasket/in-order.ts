import type { WastebasketKind } from '@mailbag/contract';

/** What needs others, before what it needs. */
const NEEDING_FIRST: readonly WastebasketKind[] = ['intake', 'mailing', 'source', 'template', 'connection', 'sender', 'mail-server'];

/** In an order in which nothing is missing: what needs others is deleted for good before them, and put back after them. */
export function inOrder<T extends { kind: WastebasketKind }>(things: readonly T[], isBack: boolean): T[] {
  const way = isBack ? -1 : 1;
  return [...things].sort((one, other) => way * (NEEDING_FIRST.indexOf(one.kind) - NEEDING_FIRST.indexOf(other.kind)));
}
