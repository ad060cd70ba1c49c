import { AsyncLocalStorage } from 'node:async_hooks';

/** Who asked for what is being done: an account, or Mailbag itself. */
const storage = new AsyncLocalStorage<string>();

export const MAILBAG_ITSELF = 'Mailbag';
export const asker = (): string => storage.getStore() ?? MAILBAG_ITSELF;
/** From here on, what this request does is done for an account. */
export const asksFor = (accountId: number): void => storage.enterWith(`account ${accountId}`);
