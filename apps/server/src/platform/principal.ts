import { AsyncLocalStorage } from 'node:async_hooks';
import { t } from '@mailbag/core/words';

/**
 * What acts: a person with an account, a key with which another program calls, a standing order, a visitor of a public page, what comes in by mail, a
 * printer, or Mailbag itself.
 */
export type PrincipalKind = 'person' | 'key' | 'order' | 'visitor' | 'mail' | 'printer' | 'mailbag';

/** Who does what is being done. Every act has one, and is kept with it. */
export interface Principal {
  kind: PrincipalKind;
  /** Of the account, key, order or visitor; null: there is only one of the kind. */
  id: number | null;
  /** As it was called when it acted. */
  name: string;
}

export const MAILBAG: Principal = { kind: 'mailbag', id: null, name: 'Mailbag' };
export const INCOMING_MAIL: Principal = { kind: 'mail', id: null, name: t`Incoming mail` };
export const person = (id: number, name: string): Principal => ({ kind: 'person', id, name });

/** As it is kept beside the name: `person:3`, `mailbag`. */
export const principalKey = ({ kind, id }: Principal): string => (id === null ? kind : `${kind}:${id}`);

/** One that was kept. */
export function principalOf(key: string, name: string): Principal {
  const [kind, id] = key.split(':');
  return { kind: kind as PrincipalKind, id: id === undefined ? null : Number(id), name };
}

const storage = new AsyncLocalStorage<Principal>();

/** Who acts now. */
export const principal = (): Principal => storage.getStore() ?? MAILBAG;
/** From here on, what this request does is done by somebody. */
export const actsFor = (who: Principal): void => storage.enterWith(who);
/** Does something on behalf of somebody. */
export const onBehalfOf = <T>(who: Principal, work: () => T): T => storage.run(who, work);
