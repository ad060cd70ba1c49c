import type { Drawn, SeenBox } from '@mailbag/core';

/** Things that were copied, with their places as they are seen: they can be put on another page, or into another template. */
export interface Clip {
  drawn: Drawn;
  box: SeenBox;
}

const KEY = 'mailbag-layout-clipboard';

/** Kept in the browser, so that another window has it too. */
export const clipboard = {
  put(clips: readonly Clip[]): void {
    try {
      localStorage.setItem(KEY, JSON.stringify(clips));
    } catch {
      // A browser that keeps nothing copies nothing.
    }
  },
  take(): Clip[] {
    try {
      const stored = JSON.parse(localStorage.getItem(KEY) ?? '[]') as unknown;
      return Array.isArray(stored) ? (stored as Clip[]) : [];
    } catch {
      return [];
    }
  },
};
