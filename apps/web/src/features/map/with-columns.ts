import type { MailingPlan } from '@mailbag/contract';
import type { Column } from '@mailbag/core';
import { patternWithColumn, planWithColumn, slugOf } from '@mailbag/core';

/**
 * The plan with columns of other names wherever it reads them: rules, conditions, key, addresses, and the patterns of names, messages and passwords.
 * @param names what the columns are called now, by what they were called
 * @param columns of the records
 */
export const withColumns = (plan: MailingPlan, names: ReadonlyMap<string, string>, columns: readonly Column[]): MailingPlan =>
  [...names].reduce((one, [name, now]) => {
    const from = { name, slug: slugOf(name) };
    const to = columns.find((column) => column.name === now) ?? { name: now, slug: slugOf(now) };
    const { openPassword, permissionsPassword } = one.output;
    return planWithColumn(
      {
        ...one,
        output: {
          ...one.output,
          ...(openPassword !== undefined && { openPassword: patternWithColumn(openPassword, from, to) }),
          ...(permissionsPassword !== undefined && { permissionsPassword: patternWithColumn(permissionsPassword, from, to) }),
        },
      },
      from,
      to,
    );
  }, plan);
