import { AsyncLocalStorage } from 'node:async_hooks';

/** Who asked for what is being done. */
export interface Asker {
  /** Null: Mailbag itself. */
  accountId: number | null;
  name: string;
}

const storage = new AsyncLocalStorage<Asker>();

export const MAILBAG_ITSELF: Asker = { accountId: null, name: 'Mailbag' };
export const asker = (): Asker => storage.getStore() ?? MAILBAG_ITSELF;
/** From here on, what this request does is done for an account. */
export const asksFor = (accountId: number, name: string): void => storage.enterWith({ accountId, name });
/** Does something on behalf of somebody. */
export const onBehalfOf = <T>(who: Asker, work: () => T): T => storage.run(who, work);
