import { del, get, set } from 'idb-keyval';

/** Work that is not on the server yet, kept in the browser (IndexedDB) so that it outlasts the window. Where the browser keeps nothing, work goes on without. */
export const unsaved = {
  async read<Work>(key: string): Promise<Work | null> {
    return ((await get<Work>(key).catch(() => undefined)) as Work | undefined) ?? null;
  },
  keep(key: string, work: unknown): void {
    set(key, work).catch(() => undefined);
  },
  forget(key: string): void {
    del(key).catch(() => undefined);
  },
};
