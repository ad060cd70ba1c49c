/** What a page keeps in the browser. */
export type BrowserStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/**
 * A browser's storage, or what forgets with the window: within the page of another site, a browser may refuse even to be asked for it
 * (WHATWG HTML, 12.2, SecurityError), and it may be full.
 * @param open asks for the storage, and throws where it is refused
 */
export function safeStorage(open: () => BrowserStorage): BrowserStorage {
  const memory = new Map<string, string>();
  let storage: BrowserStorage | null = null;
  try {
    storage = open();
  } catch {
    // Refused; the page works all the same.
  }
  return {
    getItem: (name) => memory.get(name) ?? storage?.getItem(name) ?? null,
    setItem: (name, value) => {
      try {
        if (!storage) throw new Error('There is no storage.');
        storage.setItem(name, value);
        memory.delete(name);
      } catch {
        memory.set(name, value);
      }
    },
    removeItem: (name) => {
      memory.delete(name);
      storage?.removeItem(name);
    },
  };
}

/** Beyond this visit. */
export const lastingStorage = safeStorage(() => localStorage);
/** As long as this window stands. */
export const windowStorage = safeStorage(() => sessionStorage);
