import { replaceTags } from '../patterns/tags.js';
import type { Column } from '../tables/record.js';
import type { PacketRules } from './packet.js';
import { rulesWithColumn } from './packet.js';

type Named = Pick<Column, 'name' | 'slug'>;

/** What of a mailing's plan reads columns. */
export interface ReadingPlan extends PacketRules {
  keyColumn: string | null;
  checks?: { columns?: Record<string, object> };
  output: { folder: string; file: string; metadata?: string[]; pictures?: { column?: string }[] };
  message: {
    recipient: string;
    subject: string;
    body: string;
    copyTo?: string;
    blindCopyTo?: string;
    passwordSentence?: string;
    addressColumn: string | null;
    reminder?: { subject: string; body: string } | null;
  };
  paper?: {
    name: string;
    street: string;
    postalCode: string;
    town: string;
    region: string;
    country: string;
    wantsColumn: string | null;
  } | null;
}

/** A pattern in which a column has another name: only what stands between braces is touched. */
export const patternWithColumn = (pattern: string, from: Named, to: Named): string =>
  replaceTags(pattern, (tag) => tag.replace(new RegExp(`(?<![\\p{L}\\p{N}_])${from.slug}(?![\\p{L}\\p{N}_])`, 'gu'), to.slug));

/** The patterns of a part of a plan, in which a column has another name. */
function patternsOf<Part, Name extends keyof Part>(part: Part, names: readonly Name[], from: Named, to: Named): Partial<Part> {
  return Object.fromEntries(
    names.flatMap((name) => (typeof part[name] === 'string' ? [[name, patternWithColumn(part[name], from, to)]] : [])),
  ) as Partial<Part>;
}

/** A plan in which a column has another name. The patterns of its passwords, which may be kept encrypted, stay as they are. */
export function planWithColumn<Plan extends ReadingPlan>(plan: Plan, from: Named, to: Named): Plan {
  const { columns: checks } = plan.checks ?? {};
  const { [from.name]: moved, ...rest } = checks ?? {};
  return {
    ...plan,
    keyColumn: plan.keyColumn === from.name ? to.name : plan.keyColumn,
    ...rulesWithColumn(plan, from.name, to.name),
    ...(plan.checks ? { checks: { ...plan.checks, columns: moved ? { ...rest, [to.name]: moved } : rest } } : {}),
    output: {
      ...plan.output,
      ...patternsOf(plan.output, ['folder', 'file'], from, to),
      ...(plan.output.metadata ? { metadata: plan.output.metadata.map((one) => (one === from.name ? to.name : one)) } : {}),
      ...(plan.output.pictures
        ? { pictures: plan.output.pictures.map((one) => (one.column === from.name ? { ...one, column: to.name } : one)) }
        : {}),
    },
    message: {
      ...plan.message,
      ...patternsOf(plan.message, ['recipient', 'subject', 'body', 'copyTo', 'blindCopyTo', 'passwordSentence'], from, to),
      addressColumn: plan.message.addressColumn === from.name ? to.name : plan.message.addressColumn,
      ...(plan.message.reminder
        ? { reminder: { ...plan.message.reminder, ...patternsOf(plan.message.reminder, ['subject', 'body'], from, to) } }
        : {}),
    },
    ...(plan.paper
      ? {
          paper: {
            ...plan.paper,
            ...patternsOf(plan.paper, ['name', 'street', 'postalCode', 'town', 'region', 'country'], from, to),
            wantsColumn: plan.paper.wantsColumn === from.name ? to.name : plan.paper.wantsColumn,
          },
        }
      : {}),
  };
}
