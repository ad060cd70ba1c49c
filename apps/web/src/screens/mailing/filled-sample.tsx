import { t } from '@mailbag/core/words';
import { SAMPLE_CODE, fillContext } from '@mailbag/core';
import type { SourceRecord } from '@mailbag/core';
import { useMemo, useState } from 'react';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { firstCopy } from '../../features/map/record-copies';
import { useFilled } from '../../features/map/use-filled';
import { PdfPages } from '../../features/page/pdf-pages';
import { Choice } from '../../ui/choice';
import { Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';

const NO_MAP = {};

/** The copies of the chosen record as the output makes them. */
export function FilledSample({ work, record }: { work: MailingWork; record: SourceRecord | null }) {
  const { mailing, plan, columns, index } = work;
  const [chosen, setChosen] = useState<number | null>(null);
  const templates = plan.packet.flatMap((id) => mailing.templates.find((one) => one.id === id) ?? []);
  const template = templates.find(({ id }) => id === chosen) ?? templates[0];
  const map = template ? plan.maps[template.id] : undefined;
  const context = useMemo(() => fillContext(mailing.next, index, SAMPLE_CODE), [mailing.next, index]);
  const [when, count] = template ? [plan.conditions?.[template.id] ?? null, plan.counts?.[template.id] ?? null] : [null, null];
  const copy = useMemo(() => record && firstCopy({ when, count }, record, columns, context), [when, count, record, columns, context]);
  const { bytes, error } = useFilled(template, map ?? NO_MAP, copy, columns, context, plan.output, plan.sourceId ?? null);
  if (!template) return <Small>{t`The packet is empty.`}</Small>;
  return (
    <Stack $gap={8}>
      {templates.length > 1 && (
        <Choice
          label={t`Template`}
          items={templates.map(({ id, name }) => ({ id: String(id), text: name }))}
          value={String(template.id)}
          onChange={(next) => setChosen(Number(next))}
        />
      )}
      {error && <Notice tone="brick">{error}</Notice>}
      {bytes && <PdfPages bytes={bytes} pages={template.pageSizes} fields={[]} />}
    </Stack>
  );
}
