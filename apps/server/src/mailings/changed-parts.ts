import { isDeepStrictEqual } from 'node:util';
import { t } from '@mailbag/core/words';
import type { MailingPlan } from '@mailbag/contract';

/** Parts of a plan as the history calls them. */
const partNames: Record<keyof MailingPlan, string> = {
  name: t`name`,
  packet: t`templates`,
  sourceId: t`records`,
  keyColumn: t`key`,
  maps: t`map`,
  conditions: t`who gets which template`,
  counts: t`how many copies of a template a record gets`,
  leftOut: t`records left out`,
  output: t`output`,
  message: t`message`,
  paper: t`paper`,
  checks: t`checks`,
};
/** Which parts of a plan another one changes. Passwords are compared as they are kept. */
export const changedParts = (before: MailingPlan, after: MailingPlan): string[] =>
  (Object.keys(partNames) as (keyof MailingPlan)[])
    .filter((part) => !isDeepStrictEqual(JSON.parse(JSON.stringify(before[part] ?? null)), JSON.parse(JSON.stringify(after[part] ?? null))))
    .map((part) => partNames[part]);
