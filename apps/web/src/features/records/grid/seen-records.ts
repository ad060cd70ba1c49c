import type { CorrectionAnswer, RecordsAnswer } from '@mailbag/contract';
import type { SourceRecord } from '@mailbag/core';
import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { queries, recordView, recordsAt } from '../../../api/queries';

/** Records that are asked for at once. */
const BLOCK = 200;

/** Records from which on a search is made ready before its first letter. */
const MANY = 5000;
/** A text that no record holds: looking for it leaves everything ready for the next one. */
const IN_NO_RECORD = '\u001f';
/** Milliseconds for which a server at rest remembers records that were looked through. */
const AS_LONG_AS_KNOWN = 45_000;

/** What is seen of a source: all, as it comes, or what a view leaves, in its order. */
export interface SeenRecords {
  /** How many are seen. */
  count: number;
  /** The view is being put together. */
  isWaiting: boolean;
  error: Error | null;
  recordAt: (index: number) => SourceRecord | undefined;
  correctionsAt: (index: number) => readonly CorrectionAnswer[];
  /** Records from a place on to another, also where they have not been seen yet. */
  stretch: (from: number, to: number) => Promise<SourceRecord[]>;
  /** Those that have been read already; null: some have not. */
  known: (from: number, to: number) => SourceRecord[] | null;
  /** The place of a record as it is seen, by its place in the source; -1: it is not seen. */
  indexOf: (ordinal: number) => number;
  /** Somebody is about to look for a text in any column. */
  prepareSearch: () => void;
}

const NO_CORRECTIONS: RecordsAnswer['corrections'] = [];

/**
 * @param view as the server takes it; empty: all records as they come
 * @param among places that are left; null: all
 * @param inSight places that are drawn
 */
export function useSeenRecords(
  sourceId: number,
  total: number,
  view: string,
  among: readonly number[] | null,
  inSight: readonly number[],
): SeenRecords {
  const client = useQueryClient();
  const asked = useQuery({ ...recordView(sourceId, view), enabled: view !== '' });
  const ordered = view === '' ? null : (asked.data ?? []);
  const left = among && new Set(among);
  const ordinals = ordered && left ? ordered.filter((one) => left.has(one)) : (ordered ?? among);
  const count = ordinals?.length ?? total;
  const queryOf = (block: number) =>
    ordinals === null
      ? queries.records(sourceId, block * BLOCK, BLOCK)
      : recordsAt(sourceId, ordinals.slice(block * BLOCK, (block + 1) * BLOCK));
  const blocks = [...new Set(inSight.filter((index) => index < count).map((index) => Math.floor(index / BLOCK)))];
  const pages = useQueries({ queries: blocks.map(queryOf) as ReturnType<typeof recordsAt>[] });
  // They are looked through while somebody looks at the first of them, so that the first search finds them ready.
  const lookedThrough = recordView(sourceId, new URLSearchParams({ text: IN_NO_RECORD }).toString());
  useQuery({ ...lookedThrough, enabled: total >= MANY && pages.some(({ data }) => data !== undefined) });
  const pageOf = (index: number): RecordsAnswer | undefined => pages[blocks.indexOf(Math.floor(index / BLOCK))]?.data;
  const blocksOf = (from: number, to: number): number[] => {
    const first = Math.floor(from / BLOCK);
    return Array.from({ length: Math.floor(to / BLOCK) - first + 1 }, (_, at) => first + at);
  };
  const cut = (from: number, to: number, answers: readonly RecordsAnswer[]): SourceRecord[] => {
    const first = Math.floor(from / BLOCK) * BLOCK;
    return answers.flatMap(({ records }) => records).slice(from - first, to - first + 1);
  };
  return {
    count,
    isWaiting: view !== '' && asked.isFetching,
    error: asked.error ?? pages.find(({ error }) => error)?.error ?? null,
    recordAt: (index) => pageOf(index)?.records[index % BLOCK],
    correctionsAt: (index) => pageOf(index)?.corrections ?? NO_CORRECTIONS,
    stretch: async (from, to) =>
      cut(
        from,
        to,
        await Promise.all(blocksOf(from, to).map((block) => client.ensureQueryData(queryOf(block) as ReturnType<typeof recordsAt>))),
      ),
    known: (from, to) => {
      const answers = blocksOf(from, to).map((block) => client.getQueryData<RecordsAnswer>(queryOf(block).queryKey));
      return answers.every((one) => one !== undefined) ? cut(from, to, answers) : null;
    },
    indexOf: (ordinal) => (ordinals === null ? ordinal : ordinals.indexOf(ordinal)),
    prepareSearch: () => {
      if (total >= MANY) void client.prefetchQuery({ ...lookedThrough, staleTime: AS_LONG_AS_KNOWN });
    },
  };
}
