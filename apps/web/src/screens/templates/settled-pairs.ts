import type { Comparison, FieldPair } from '@mailbag/core';
import { DOUBTFUL } from '@mailbag/core';

/** What a person settled: for a field of the old edition the one of the new edition that it is; null: none is. */
export type Settled = ReadonlyMap<string, string | null>;

/** A comparison as a person has settled it. */
export interface SettledComparison {
  /** Pairs that wait for a person. */
  doubtful: FieldPair[];
  /** Pairs that changed in more than name and page, in those alone, and in nothing. */
  changed: FieldPair[];
  renamed: FieldPair[];
  same: FieldPair[];
  gone: string[];
  added: string[];
  /** What becomes which, for everything that is settled. */
  pairs: { old: string; new: string }[];
}

const isOnlyElsewhere = ({ changes }: FieldPair): boolean => changes.every((change) => change === 'renamed' || change === 'page');

/** Puts together what was found and what a person said of it. */
export function settle({ pairs, gone, added }: Comparison, settled: Settled): SettledComparison {
  const taken = new Set([...settled.values()].filter((name) => name !== null));
  const known = new Map(pairs.map((pair) => [pair.old, pair]));
  const own = [...settled].flatMap(([old, name]): FieldPair[] => {
    if (name === null) return [];
    const found = known.get(old);
    return [found?.new === name ? { ...found, sure: 1 } : { old, new: name, changes: old === name ? [] : ['renamed'], sure: 1 }];
  });
  const found = pairs.filter((pair) => !settled.has(pair.old) && !taken.has(pair.new));
  const all = [...own, ...found];
  const doubtful = all.filter(({ sure }) => sure < DOUBTFUL);
  const sure = all.filter((pair) => pair.sure >= DOUBTFUL);
  const [olds, news] = [new Set(all.map((pair) => pair.old)), new Set(all.map((pair) => pair.new))];
  return {
    doubtful,
    changed: sure.filter((pair) => !isOnlyElsewhere(pair)),
    renamed: sure.filter((pair) => pair.changes.length > 0 && isOnlyElsewhere(pair)),
    same: sure.filter(({ changes }) => changes.length === 0),
    gone: [...gone, ...pairs.map((pair) => pair.old)].filter((name, at, names) => !olds.has(name) && names.indexOf(name) === at),
    added: [...added, ...pairs.map((pair) => pair.new)].filter((name, at, names) => !news.has(name) && names.indexOf(name) === at),
    pairs: sure.map((pair) => ({ old: pair.old, new: pair.new })),
  };
}
