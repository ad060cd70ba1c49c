import { counted, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { RevisionSummary } from '@mailbag/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../../api/client';
import { when } from '../../features/when';
import { Button } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { Small } from '../../ui/layout';
import { ChangeLine, ChangesHeading } from './change-line';

/** All revisions of a template: to be compared with the one on the right, or gone back to. */
export function RevisionList({
  templateId,
  revisions,
  before,
  after,
  onChoose,
}: {
  templateId: number;
  revisions: readonly RevisionSummary[];
  before: RevisionSummary;
  after: RevisionSummary;
  onChoose: (from: number, to: number) => void;
}) {
  return (
    <section aria-label={t`All revisions`}>
      <ChangesHeading>{t`All revisions`}</ChangesHeading>
      {revisions.map((one) => (
        <ChangeLine key={one.id} data-chosen={one.id === before.id || one.id === after.id || undefined}>
          <button onClick={() => one.id !== after.id && onChoose(one.id, after.id)} disabled={one.id === after.id}>
            <div>{phrase`Revision ${one.number}  ${(<Small>{one.fileName}</Small>)}`}</div>
            <Small>
              {counted(one.fields, 'field')} · {when(one.createdAt)} ·{' '}
              {one.usedBy.length === 0 ? t`in no mailing` : counted(one.usedBy.length, 'mailing')}
            </Small>
          </button>
          <Small>{one.id === after.id ? t`on the right` : one.id === before.id ? t`in the middle` : t`compare`}</Small>
          {one.number !== revisions[0]!.number && <GoBack templateId={templateId} revision={one} latest={revisions[0]!.number} />}
        </ChangeLine>
      ))}
    </section>
  );
}

/** An earlier revision becomes the latest again, as a revision of its own. */
function GoBack({ templateId, revision, latest }: { templateId: number; revision: RevisionSummary; latest: number }) {
  const client = useQueryClient();
  const back = useMutation({
    mutationFn: () => api.post<RevisionSummary>(`/api/templates/${templateId}/revisions/${revision.id}/latest`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['templates'] }),
  });
  return (
    <Confirm
      title={t`Go back to revision ${revision.number}?`}
      text={t`It becomes revision ${latest + 1}, the latest. Revisions in between stay, and so do the mailings that fill them until you take them over.`}
      yes={t`Go back to it`}
      onYes={() => back.mutate()}
    >
      <Button small changes isDisabled={back.isPending}>{t`Go back`}</Button>
    </Confirm>
  );
}
