import type { MailingPlan } from '@mailbag/contract';
import type { BatchContext, Column, RenderedMessage, SourceRecord } from '@mailbag/core';
import {
  SAMPLE_CODE,
  compilePattern,
  fillContext,
  letterExtras,
  messagePattern,
  outputPattern,
  patternData,
  patternExtras,
} from '@mailbag/core';

export interface Sample {
  paths: { path: string | null; error: string | null }[];
  recipient: string;
  recipientError: string | null;
  message: RenderedMessage | null;
  messageError: string | null;
}

const attempt = <T>(work: () => T): { value: T | null; error: string | null } => {
  try {
    return { value: work(), error: null };
  } catch (error) {
    return { value: null, error: error instanceof Error ? error.message : String(error) };
  }
};

export const patternNames = (columns: readonly Column[]): string[] => [...columns.map(({ slug }) => slug), ...patternExtras];

/** What the output and the message of a plan give for one record. */
export function sampleOf(
  plan: MailingPlan,
  columns: readonly Column[],
  record: SourceRecord | null,
  index: number,
  templates: readonly string[],
  batch: BatchContext,
): Sample {
  const names = patternNames(columns);
  const data = (template: string) =>
    patternData(columns, record ?? { row: 0, cells: [] }, {
      ...fillContext(batch, index, SAMPLE_CODE),
      template,
    });
  const paths = templates.map((template) => {
    const { value, error } = attempt(() => {
      const { folders, file } = outputPattern(plan.output.folder, plan.output.file, names).path(data(template));
      return [...folders, file].join('/');
    });
    return { path: value, error };
  });
  const recipient = attempt(() =>
    compilePattern(plan.message.recipient, names)
      .render(data(templates[0] ?? ''))
      .replace(/\s+/g, ' ')
      .trim(),
  );
  const message = attempt(() =>
    messagePattern(
      { subject: plan.message.subject, text: plan.message.body, html: plan.message.bodyFormat === 'html' ? plan.message.body : null },
      [...names, ...letterExtras.filter((name) => name !== 'link' || batch.link !== undefined)],
    )({ replaces: '', replaced_on: '', ...data(templates[0] ?? '') }),
  );
  return { paths, recipient: recipient.value ?? '', recipientError: recipient.error, message: message.value, messageError: message.error };
}
