import { del, entries, set } from 'idb-keyval';
import { randomKey } from './random-key';

/** This window, among others that may work on the same: each keeps its own work. */
const own = randomKey();
const keyOf = (name: string, window = own): string => `${name} / ${window}`;

/** Work that is not on the server yet, kept in the browser (IndexedDB) so that it outlasts the window. Where the browser keeps nothing, work goes on without. */
export const unsaved = {
  /** What windows that are gone have left of something, each once, the oldest names first. One that is still open keeps its work anew at its next change. */
  async takeOver<Work>(name: string): Promise<Work[]> {
    const all = await entries<string, Work>().catch(() => []);
    const left = all.filter(([key]) => key.startsWith(keyOf(name, '')) && key !== keyOf(name));
    return left.map(([, work]) => work);
  },
  keep(name: string, work: unknown): void {
    set(keyOf(name), work).catch(() => undefined);
  },
  forget(name: string): void {
    del(keyOf(name)).catch(() => undefined);
  },
  /** Once what others left is kept here, or on the server. */
  async forgetOthers(name: string): Promise<void> {
    const all = await entries<string, unknown>().catch(() => []);
    for (const [key] of all) if (key.startsWith(keyOf(name, '')) && key !== keyOf(name)) await del(key).catch(() => undefined);
  },
};
