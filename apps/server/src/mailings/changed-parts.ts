import { isDeepStrictEqual } from 'node:util';
import type { MailingPlan } from '@mailbag/contract';

/** Parts of a plan as the history calls them. */
const partNames: Record<keyof MailingPlan, string> = {
  name: 'name',
  packet: 'templates',
  sourceId: 'records',
  keyColumn: 'key',
  maps: 'map',
  conditions: 'who gets which template',
  counts: 'how many copies of a template a record gets',
  leftOut: 'records left out',
  output: 'output',
  message: 'message',
  paper: 'paper',
  checks: 'checks',
};
/** Which parts of a plan another one changes. Passwords are compared as they are kept. */
export const changedParts = (before: MailingPlan, after: MailingPlan): string[] =>
  (Object.keys(partNames) as (keyof MailingPlan)[])
    .filter((part) => !isDeepStrictEqual(JSON.parse(JSON.stringify(before[part] ?? null)), JSON.parse(JSON.stringify(after[part] ?? null))))
    .map((part) => partNames[part]);
