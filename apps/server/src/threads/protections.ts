import type { BatchContext, FillOptions, Protection, SourceRecord } from '@mailbag/core';
import { prepareProtection, usualPermissions } from '@mailbag/core';
import { nodeCiphers } from '@mailbag/host';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { passwordPattern } from '../frozen/message-of.js';
import { derivedSeed } from '../platform/secret-box.js';

/** The passwords of one copy, and what the engine makes of them. */
export interface CopyPasswords {
  open: string;
  protect: NonNullable<FillOptions['protect']>;
}

/** The passwords of one copy, made ready; null: both came out empty. */
export type Protections = (
  record: SourceRecord & { ordinal: number },
  code: string,
  batch: BatchContext,
  template: string,
) => CopyPasswords | null;

/**
 * Passwords of a mailing's copies. One that all copies share is derived once. The same copy gets the same bytes when it is made again.
 * @param label tells this batch from others
 * @returns null: the mailing sets none
 */
export function protectionsOf({ plan, columns }: FrozenMailing, label: string): Protections | null {
  const passwords = passwordPattern(plan, columns);
  if (!passwords) return null;
  let last: { open: string; permissions: string; protection: Protection } | null = null;
  return (record, code, batch, template) => {
    const { open, permissions } = passwords({ record, ordinal: record.ordinal, code, batch, template });
    if (open === '' && permissions === '') return null;
    if (last?.open !== open || last.permissions !== permissions) {
      const protection = prepareProtection({
        ciphers: nodeCiphers,
        seed: derivedSeed(`${label} ${open} ${permissions}`),
        openPassword: open,
        permissionsPassword: permissions,
        ...(permissions === '' ? {} : { permissions: usualPermissions(plan.output.finish ?? 'flattened') }),
      });
      last = { open, permissions, protection };
    }
    return { open, protect: { protection: last.protection, copy: code } };
  };
}
