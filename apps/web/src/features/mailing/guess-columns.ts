import { t } from '@mailbag/core/words';
import type { MailingPlan, SourceSummary } from '@mailbag/contract';
import { nameColumns } from '@mailbag/core';

/** Fills in what a new source makes obvious: key, addresses, names. What a person chose and still holds stays. */
export function guessColumns(plan: MailingPlan, source: SourceSummary): MailingPlan {
  const { columns, count } = source;
  const has = (name: string | null): boolean => name !== null && columns.some((column) => column.name === name);
  const full = columns.filter((column) => column.empty === 0);
  const key =
    full.find((column) => column.distinct >= Math.min(1000, count) && column.kind !== 'address') ??
    full.find((column) => column.distinct >= Math.min(1000, count) * 0.98 && column.kind === 'text');
  const address = columns.find((column) => column.kind === 'email') ?? columns.find((column) => /e-?mail/i.test(column.name));
  const { firstName, surname, whole } = nameColumns(columns);
  const recipient = firstName && surname ? `{{ ${firstName.slug} }} {{ ${surname.slug} }}` : whole ? `{{ ${whole.slug} }}` : '';
  const keySlug = columns.find((column) => column.name === (has(plan.keyColumn) ? plan.keyColumn : key?.name))?.slug;
  const isUntouched = plan.output.file === '{{ template }} {{ code }}.pdf';
  return {
    ...plan,
    keyColumn: has(plan.keyColumn) ? plan.keyColumn : (key?.name ?? null),
    output: isUntouched && keySlug ? { ...plan.output, file: `{{ ${keySlug} }} {{ template }}.pdf` } : plan.output,
    message: {
      ...plan.message,
      addressColumn: has(plan.message.addressColumn) ? plan.message.addressColumn : (address?.name ?? null),
      recipient: plan.message.recipient || recipient,
      subject: plan.message.subject || plan.name,
      body: plan.message.body || t`Dear ${recipient || t`reader`},\n\nyour copy is attached.\n`,
    },
  };
}
