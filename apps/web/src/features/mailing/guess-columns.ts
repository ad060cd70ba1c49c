import { t } from '@mailbag/core/words';
import type { MailingPlan, SourceSummary } from '@mailbag/contract';

/** Fills in what a new source makes obvious: key, addresses, names. What a person chose and still holds stays. */
export function guessColumns(plan: MailingPlan, source: SourceSummary): MailingPlan {
  const { columns, count } = source;
  const has = (name: string | null): boolean => name !== null && columns.some((column) => column.name === name);
  const full = columns.filter((column) => column.empty === 0);
  const key =
    full.find((column) => column.distinct >= Math.min(1000, count) && column.kind !== 'address') ??
    full.find((column) => column.distinct >= Math.min(1000, count) * 0.98 && column.kind === 'text');
  const address = columns.find((column) => column.kind === 'email') ?? columns.find((column) => /e-?mail/i.test(column.name));
  const slug = (test: RegExp): string | null => columns.find((column) => test.test(column.name))?.slug ?? null;
  const first = slug(/^(first|given|fore)[ _-]?names?$/i);
  const last = slug(/^(surname|last[ _-]?name|family[ _-]?name)$/i);
  const whole = slug(/^(full )?name$/i) ?? slug(/\b(tenant|recipient|person|member|student|applicant)\b/i) ?? slug(/name/i);
  const recipient = first && last ? `{{ ${first} }} {{ ${last} }}` : whole ? `{{ ${whole} }}` : '';
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
