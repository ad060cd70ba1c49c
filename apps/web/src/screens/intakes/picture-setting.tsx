import { t } from '@mailbag/core/words';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { jpegOf } from '../../platform/pdf-reader';
import { Toggled } from '../../ui/field';
import { Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { useLatest } from '../../ui/use-latest';
import type { IntakeWork } from './intake-work';

/** Pixels: it is shown half as wide, also on screens with small ones. */
const WIDTH = 320;

/** Whether the first page shows the form as it is on paper. It is drawn here, anew when another revision of the form comes in. */
export function PictureSetting({ work: { document: plan, change, intake } }: { work: IntakeWork }) {
  const client = useQueryClient();
  const [wanted, setWanted] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const latest = useLatest(change);
  const [form] = intake.templates;
  const drawn = plan.picture ?? null;
  const isStale = form !== undefined && drawn !== null && drawn.revision !== form.revisionId;
  const isDrawing = form !== undefined && (isStale || (wanted && drawn === null));
  const { id = 0, revisionId = 0 } = form ?? {};
  useEffect(() => {
    if (!isDrawing) return undefined;
    let isOver = false;
    const draw = async (): Promise<void> => {
      const image = await jpegOf(await client.fetchQuery(queries.templatePdf(id, revisionId)), WIDTH);
      if (!isOver) latest.current((before) => ({ ...before, picture: { image, revision: revisionId } }));
    };
    draw().then(
      () => setFault(null),
      (error: unknown) => setFault(sentenceOf(error)),
    );
    return () => void (isOver = true);
  }, [isDrawing, client, latest, id, revisionId]);
  if (!form) return null;
  return (
    <Stack $gap={4}>
      <Toggled
        label={t`Show the form’s first page before the first question`}
        value={drawn !== null || wanted}
        onChange={(next) => {
          setWanted(next);
          if (!next) change((before) => ({ ...before, picture: null }));
        }}
      />
      {isDrawing && fault === null && <Small role="status">{t`It is being drawn …`}</Small>}
      {fault && <Notice tone="brick">{t`The form cannot be drawn: ${fault}`}</Notice>}
    </Stack>
  );
}
