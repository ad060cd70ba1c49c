import type { Column } from '../tables/record.js';
import type { CheckPlan, ColumnChecks } from './column-checks.js';
import { checkKinds } from './registry.js';

const columnChecks = Object.values(checkKinds).flatMap(({ column }) => column ?? []);
const bySwitch = new Map(columnChecks.map((one) => [one.switch, one]));

/** The switches of checks that need no more than on or off, in the order in which they are offered. */
export const plainSwitches: readonly string[] = [...bySwitch.keys()].filter((name) => name !== 'range' && name !== 'allowed');

/** What a value is when a check has nothing to say; empty: there is no such check. */
export const checkSays = (name: string): string => bySwitch.get(name)?.says ?? '';

/** The checks that a column's profile asks for. */
export const proposedChecks = (column: Column): ColumnChecks =>
  Object.fromEntries(columnChecks.filter((one) => one.proposed(column)).map((one) => [one.switch, true]));

/** What is checked in a column: what a person has set, else what is proposed. */
export const checksOf = (plan: CheckPlan, column: Column): ColumnChecks => ({
  ...proposedChecks(column),
  ...(plan.columns && Object.hasOwn(plan.columns, column.name) ? plan.columns[column.name] : {}),
});

/** The first check of a plan that there is none of; null: all are known. */
export function unknownChecks({ columns = {} }: CheckPlan): string | null {
  for (const checks of Object.values(columns))
    for (const name of Object.keys(checks ?? {})) if (!bySwitch.has(name)) return name.slice(0, 60);
  return null;
}
