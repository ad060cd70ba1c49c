import type { MailingPlan } from '@mailbag/contract';
import type { Column, FillRule } from '@mailbag/core';
import { renameColumn } from '@mailbag/core';

type Named = Pick<Column, 'name' | 'slug'>;

/** A pattern in which a column has another name: only what stands between braces is touched. */
const inPattern = (pattern: string, from: Named, to: Named): string =>
  pattern.replace(/\{\{[^}]*\}\}|\{%[^%]*%\}/g, (tag) =>
    tag.replace(new RegExp(`(?<![\\p{L}\\p{N}_])${from.slug}(?![\\p{L}\\p{N}_])`, 'gu'), to.slug),
  );

/** A plan in which a column has another name. */
export function planWithColumn(plan: MailingPlan, from: Named, to: Named): MailingPlan {
  const rule = (one: FillRule): FillRule => renameColumn(one, from.name, to.name);
  const { columns: checks } = plan.checks ?? {};
  const { [from.name]: moved, ...rest } = checks ?? {};
  return {
    ...plan,
    keyColumn: plan.keyColumn === from.name ? to.name : plan.keyColumn,
    maps: Object.fromEntries(
      Object.entries(plan.maps).map(([id, map]) => [id, Object.fromEntries(Object.entries(map).map(([field, one]) => [field, rule(one)]))]),
    ),
    ...(plan.checks ? { checks: { ...plan.checks, columns: moved ? { ...rest, [to.name]: moved } : rest } } : {}),
    output: { ...plan.output, folder: inPattern(plan.output.folder, from, to), file: inPattern(plan.output.file, from, to) },
    message: {
      ...plan.message,
      addressColumn: plan.message.addressColumn === from.name ? to.name : plan.message.addressColumn,
      recipient: inPattern(plan.message.recipient, from, to),
      subject: inPattern(plan.message.subject, from, to),
      body: inPattern(plan.message.body, from, to),
    },
  };
}
