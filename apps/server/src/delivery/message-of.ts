import type { RenderedMessage, SourceRecord } from '@mailbag/core';
import { messagePattern, patternData, patternExtras } from '@mailbag/core';
import type { FrozenMailing } from '../batches/frozen-mailing.js';

export type Pattern = (record: SourceRecord, ordinal: number, code: string) => RenderedMessage;

/** The message of a batch, ready to be rendered for each record. @throws MailbagError pattern-* */
export function messageOf({ plan, columns, templates }: FrozenMailing, batchNumber: number): Pattern {
  const names = [...patternExtras, ...columns.map(({ slug }) => slug)];
  const render = messagePattern(plan.message.subject, plan.message.body, names);
  const today = new Date().toISOString().slice(0, 10);
  return (record, ordinal, code) =>
    render(
      patternData(columns, record, {
        code,
        template: templates[0]?.name ?? '',
        batch: String(batchNumber),
        number: String(ordinal + 1),
        today,
      }),
    );
}
