/** Rows that are picked, and the row from which a range is drawn. */
export interface Picking<K> {
  picked: ReadonlySet<K>;
  /** null: nothing has been picked yet. */
  anchor: K | null;
}
export const nothingPicked: Picking<never> = { picked: new Set<never>(), anchor: null };

/** How a row is picked: added or taken off, or all from the last one to this one. */
export type PickWay = 'toggle' | 'range';

/**
 * What is picked after one more pick.
 * @param keys of all rows, as they are seen
 * @param at the row that is picked
 */
export function pick<K>({ picked, anchor }: Picking<K>, keys: readonly K[], at: number, way: PickWay): Picking<K> {
  const key = keys[at];
  if (key === undefined) return { picked, anchor };
  const from = anchor === null ? -1 : keys.indexOf(anchor);
  if (way === 'range' && from >= 0) {
    // What a range takes in stands beside what was picked before; the anchor stays.
    const range = keys.slice(Math.min(from, at), Math.max(from, at) + 1);
    return { picked: new Set([...picked, ...range]), anchor };
  }
  const next = new Set(picked);
  if (!next.delete(key)) next.add(key);
  return { picked: next, anchor: key };
}

export const pickAll = <K>({ anchor }: Picking<K>, keys: readonly K[]): Picking<K> => ({ picked: new Set(keys), anchor });

/** Only what is still there stays picked. The same picking where all of it is. */
export function pickedOf<K>(picking: Picking<K>, keys: ReadonlySet<K>): Picking<K> {
  const left = [...picking.picked].filter((key) => keys.has(key));
  return left.length === picking.picked.size ? picking : { ...picking, picked: new Set(left) };
}
