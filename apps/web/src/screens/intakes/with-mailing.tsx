import { t } from '@mailbag/core/words';
import type { MailingDetail } from '@mailbag/contract';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { usePlan } from '../../features/mailing/use-plan';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';

interface Props {
  /** Id of the mailing that makes copies of the answers. */
  id: number;
  /** The part of the screen to which steps of undo belong. */
  part: string;
  children: (work: MailingWork) => ReactNode;
}

/** What is set in an intake's mailing, from the intake. It saves itself as the mailing does. */
export function WithMailing({ id, part, children }: Props) {
  const { data, error } = useQuery({ ...queries.mailing(id), refetchOnWindowFocus: false });
  if (error && !data) return <Notice tone="brick">{sentenceOf(error)}</Notice>;
  if (!data) return <Loading what={t`the mailing`} />;
  return (
    <Work mailing={data} part={part}>
      {children}
    </Work>
  );
}

function Work({ mailing, part, children }: { mailing: MailingDetail } & Pick<Props, 'part' | 'children'>) {
  const editor = usePlan(mailing, part);
  return children({ ...editor, mailing, columns: mailing.source?.columns ?? [], index: 0, setIndex: () => undefined });
}
