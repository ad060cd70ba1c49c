import { useEffect, useSyncExternalStore } from 'react';

/** A key, or several, with what they do. */
export interface Shortcut {
  /** As they are written on keys, such as “Ctrl Z”. */
  keys: string;
  what: string;
  /** Everywhere, not only on this screen. */
  isEverywhere?: boolean;
}

const KEPT = 'mailbag-single-keys';

/** The shortcuts of what is on the screen now, and whether single letters are any (WCAG 2.2, 2.1.4). */
export class Shortcuts {
  private readonly known = new Map<symbol, readonly Shortcut[]>();
  private readonly listeners = new Set<() => void>();
  private list: readonly Shortcut[] = [];

  /** @param store keeps the choice for this browser; null: there is no room for it */
  constructor(private readonly store: Pick<Storage, 'getItem' | 'setItem'> | null) {}

  /** @returns what takes them away again */
  add(shortcuts: readonly Shortcut[]): () => void {
    const own = Symbol();
    this.known.set(own, shortcuts);
    this.tell();
    return () => {
      this.known.delete(own);
      this.tell();
    };
  }

  /** Those of this screen first; what two parts of it share stands there once. */
  get all(): readonly Shortcut[] {
    return this.list;
  }

  get areLettersOn(): boolean {
    return this.store?.getItem(KEPT) !== 'off';
  }
  switchLetters(isOn: boolean): void {
    this.store?.setItem(KEPT, isOn ? 'on' : 'off');
    this.tell();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  private tell(): void {
    const each = new Map([...this.known.values()].flat().map((one) => [`${one.keys} ${one.what}`, one]));
    this.list = [...each.values()].sort((one, other) => Number(one.isEverywhere ?? false) - Number(other.isEverywhere ?? false));
    for (const listener of this.listeners) listener();
  }
}

export const shortcuts = new Shortcuts(typeof localStorage === 'undefined' ? null : localStorage);

/** Tells of shortcuts as long as what they work on is on the screen. @param list the same array each time */
export function useShortcutHelp(list: readonly Shortcut[] | null): void {
  useEffect(() => (list === null ? undefined : shortcuts.add(list)), [list]);
}
export const useShortcuts = (): readonly Shortcut[] => useSyncExternalStore(shortcuts.subscribe, () => shortcuts.all);
export const useAreLettersOn = (): boolean => useSyncExternalStore(shortcuts.subscribe, () => shortcuts.areLettersOn);
