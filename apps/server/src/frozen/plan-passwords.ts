import type { MailingPlan, OutputPlan } from '@mailbag/contract';
import { MailbagError, PASSWORD_KEPT } from '@mailbag/core';
import { seal, unseal } from '../platform/secret-box.js';

/** In front of a password's pattern that is kept encrypted: a fixed one is a secret as it stands, and a composed one tells how to compose it. */
const SEALED = 'sealed:';
const passwordNames = ['openPassword', 'permissionsPassword'] as const;

/** A password's pattern in clear, kept encrypted or not. @throws MailbagError password-lost when it was encrypted with a key that is gone */
export function passwordText(stored = ''): string {
  if (!stored.startsWith(SEALED)) return stored;
  try {
    return unseal(stored.slice(SEALED.length));
  } catch (cause) {
    throw new MailbagError('password-lost', {}, { cause });
  }
}
const isLost = (stored: string): boolean => {
  try {
    passwordText(stored);
    return false;
  } catch {
    return true;
  }
};

const withPasswords = <Plan extends { output: OutputPlan }>(
  plan: Plan,
  change: (text: string, name: (typeof passwordNames)[number]) => string,
): Plan => ({
  ...plan,
  output: {
    ...plan.output,
    ...Object.fromEntries(passwordNames.flatMap((name) => (plan.output[name]?.trim() ? [[name, change(plan.output[name], name)]] : []))),
  },
});

/**
 * A plan as it is kept: its passwords encrypted.
 * @param before the plan that is kept now. What stands for a password that was not shown means the one in it; one that was not changed keeps its bytes,
 * so that nothing counts as changed.
 * @throws MailbagError password-both
 */
export function sealedPlan<Plan extends { output: OutputPlan }>(plan: Plan, before: { output: OutputPlan } | null): Plan {
  const sealed = withPasswords(plan, (text, name) => {
    const stored = before?.output[name] ?? '';
    return text === PASSWORD_KEPT || (stored.startsWith(SEALED) && !isLost(stored) && passwordText(stored) === text)
      ? stored
      : SEALED + seal(text);
  });
  const [open = '', permissions = ''] = passwordNames.map((name) => sealed.output[name] ?? '');
  if (
    open.trim() !== '' &&
    permissions.trim() !== '' &&
    !isLost(open) &&
    !isLost(permissions) &&
    passwordText(open) === passwordText(permissions)
  )
    throw new MailbagError('password-both', {});
  return sealed;
}

/** A plan of an earlier version, which kept passwords in clear. */
export const sealedIfClear = <Plan extends { output: OutputPlan }>(plan: Plan): Plan =>
  withPasswords(plan, (text) => (text.startsWith(SEALED) ? text : SEALED + seal(text)));

/** A plan as it is told: its passwords in clear to those who may see them. */
export const toldPlan = (plan: MailingPlan, seesPasswords: boolean): MailingPlan =>
  withPasswords(plan, (text) => (seesPasswords && !isLost(text) ? passwordText(text) : PASSWORD_KEPT));

/** A plan whose passwords are changed as patterns. */
export const withPasswordPatterns = (plan: MailingPlan, change: (pattern: string) => string): MailingPlan =>
  withPasswords(plan, (text) => (isLost(text) ? text : change(passwordText(text))));
